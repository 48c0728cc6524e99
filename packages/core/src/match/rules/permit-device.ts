/** A permit is for one device, told by its serial number. */
import { rule } from '../rule.ts'

export const permitDevice = rule({
  id: 'permit.device',
  overruled: 'nobody',
  needs: ['serial'],
  reads: ['permit'],
  says: { fits: ['fits', 'here'], other: ['does-not-fit', 'here', 'device'] },
  concerns: ({ shelved, permit }) => shelved.manifest.kind === 'service' && permit !== undefined,
  check: ({ serial: here }, { permit }) => {
    if (permit === undefined) return undefined
    return permit.device === here
      ? { say: 'fits', facts: { here } }
      : { say: 'other', facts: { here, device: permit.device }, remedy: { kind: 'permit' } }
  },
})
