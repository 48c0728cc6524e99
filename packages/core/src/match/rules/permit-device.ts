/** A permit is for one device, told by the id that is fused into it. */
import { alikeAt } from '../../terms/text.ts'
import { permitKindOf } from '../permit.ts'
import { rule } from '../rule.ts'

export const permitDevice = rule({
  id: 'permit.device',
  overruled: 'nobody',
  needs: ['deviceId'],
  reads: ['permit'],
  says: {
    fits: ['fits', 'here'],
    alike: ['does-not-fit', 'here', 'device', 'at', 'says', 'is'],
    other: ['does-not-fit', 'here', 'device'],
  },
  concerns: ({ shelved, permit }) =>
    permitKindOf(shelved.manifest) !== undefined && permit !== undefined,
  check: ({ deviceId: here }, { permit }) => {
    if (permit === undefined) return undefined
    const { device } = permit
    if (device === here) return { say: 'fits', facts: { here } }
    const remedy = { kind: 'permit' } as const
    const apart = alikeAt(device, String(here))
    return apart === undefined
      ? { say: 'other', facts: { here, device }, remedy }
      : { say: 'alike', facts: { here, device, ...apart }, remedy }
  },
})
