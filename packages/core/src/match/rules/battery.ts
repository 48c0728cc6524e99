/**
 * The charge is enough: what writing, reading back and a first start drain at the longest, plus the
 * house's margin; or the house's fixed floor where that is higher. A damaged cell is never overruled.
 */
import { effectOf } from '../../effect/effect.ts'
import { chargeNeeded, drainOf } from '../../pace/pace.ts'
import type { Case, Rule } from '../rule.ts'

export const battery: Rule = {
  id: 'state.battery',
  needs: ['batteryPercent'],
  final: false,
  codes: ['fit.state.battery.fits', 'fit.state.battery.charge'],
  check: ({ batteryPercent }, at) => {
    const needed = needOf(at)
    const facts = { here: Number(batteryPercent), needed, margin: at.house.batteryMargin }
    return Number(batteryPercent) >= needed
      ? { verdict: 'fits', code: 'fit.state.battery.fits', facts }
      : { verdict: 'fits-if', code: 'fit.state.battery.charge', facts, remedy: 'charge' }
  },
}

/** Percent needed for every image of the package, rounded up. */
function needOf(at: Case): number {
  const { family, shelved, house } = at
  const { images, scale } = shelved.manifest
  const bytes = images.reduce((sum, { size }) => sum + size, 0) * scale
  const [image] = images
  if (image === undefined) return house.batteryFloor ?? 0
  const { partition, role } = image
  const drained = [
    effectOf(family, { kind: 'write', partition, role, bytes }),
    effectOf(family, { kind: 'digest', bytes }),
    effectOf(family, { kind: 'first-start', wiped: false }),
  ].reduce((sum, effect) => sum + drainOf(family, effect), 0)
  return chargeNeeded(drained, house)
}
