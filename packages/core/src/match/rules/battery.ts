/**
 * The charge is enough: what writing in pieces, reading back and a first start drain at the longest, the worst of
 * them twice and a way out, as fast as a known fault of its board drains, and no less than what an install asks for as it
 * starts; plus the house's margin; or the house's fixed floor where that is higher.
 */
import type { Operation } from '../../effect/effect.ts'
import { effectOf } from '../../effect/effect.ts'
import { drainTimes, leastToInstall } from '../charge.ts'
import { chargeWith, drainOf, drawnWith } from '../../pace/pace.ts'
import type { Case } from '../rule.ts'
import { rule } from '../rule.ts'

const MIB = 1024 * 1024

export const battery = rule({
  id: 'state.battery',
  overruled: 'nobody',
  needs: ['batteryPercent'],
  reads: ['house', 'identity', 'way'],
  says: {
    fits: ['fits', 'here', 'needed', 'margin'],
    charge: ['fits-if', 'here', 'needed', 'margin'],
  },
  check: ({ batteryPercent }, at) => {
    const needed = needOf(at)
    const facts = { here: Number(batteryPercent), needed, margin: at.house.batteryMargin }
    return facts.here >= needed
      ? { say: 'fits', facts }
      : { say: 'charge', facts, remedy: { kind: 'charge' } }
  },
})
/** Percent needed for every image of the package, rounded up. */
function needOf(at: Pick<Case, 'family' | 'shelved' | 'house' | 'identity' | 'way'>): number {
  const { family, shelved, house, identity, way } = at
  const { images, scale } = shelved.manifest
  const [first] = images
  if (first === undefined) return house.batteryFloor ?? 0
  const { partition, role } = first
  const sizes = images.map(({ size }) => size * scale)
  const all = sizes.reduce((sum, size) => sum + size, 0)
  const largest = Math.max(...sizes)
  const drain = (operation: Operation) => drainOf(family, effectOf(family, operation))
  const writing = (bytes: number) => drain({ kind: 'write', partition, role, bytes })
  const digesting = (bytes: number) => drain({ kind: 'digest', bytes })
  const start = drain({ kind: 'first-start', wiped: false })
  /* What is drained goes by bytes: pieces and images are added up, and the largest of each is the costliest. */
  const drained = writing(all) + digesting(all) + start
  const piece = Math.min(family.pieceMiB * MIB, largest)
  const again = Math.max(writing(piece), digesting(largest), start)
  const drawn = drawnWith(family, { drained, again })
  const times = drainTimes(family, identity, [shelved.manifest.build])
  const installs = way === undefined || way === 'images' ? 0 : leastToInstall(family, way)
  return chargeWith(Math.max(drawn * times, installs), house)
}
