/** A permit is for one device, told by the id that is fused into it. */
import { looksAlike } from '../../terms/text.ts'
import { rule } from '../rule.ts'

export const permitDevice = rule({
  id: 'permit.device',
  overruled: 'nobody',
  needs: ['deviceId'],
  reads: ['permit'],
  says: {
    fits: ['fits', 'here'],
    alike: ['does-not-fit', 'here', 'device'],
    other: ['does-not-fit', 'here', 'device'],
  },
  concerns: ({ shelved, permit }) => shelved.manifest.kind === 'service' && permit !== undefined,
  check: ({ deviceId: here }, { permit }) => {
    if (permit === undefined) return undefined
    const { device } = permit
    if (device === here) return { say: 'fits', facts: { here } }
    const say = looksAlike(device, String(here)) ? 'alike' : 'other'
    return { say, facts: { here, device }, remedy: { kind: 'permit' } }
  },
})
