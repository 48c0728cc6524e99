/**
 * What one move costs, folded over the declared effects of its own steps. Reads the case of a move, its steps and this
 * bench's own figures; gives whole numbers.
 */
import type { Effect } from '../effect/effect.ts'
import { effectOf } from '../effect/effect.ts'
import type { Family } from '../family/profile.ts'
import type { Case } from '../match/rule.ts'
import type { Fate } from '../match/rules/data-fate.ts'
import { FATE_OF } from '../match/rules/data-fate.ts'
import type { OwnFigures } from '../pace/pace.ts'
import { paceOf } from '../pace/pace.ts'
import type { Laid } from '../plan/lay.ts'
import { operationOf } from '../plan/operation.ts'
import { whysOf } from '../plan/whys.ts'
import type { StepBody } from '../plan/step.ts'
import type { PartRole } from '../terms/device.ts'
import type { Cost } from './cost.ts'

const MIB = 1024 * 1024
const FETCH_MIB = 16
const MINUTE = 60
/** How grave each fate is. */
const DATA: Readonly<Record<Fate, number>> = { kept: 0, unreadable: 1, wiped: 2, unpromised: 2 }

/** Things that have no place are promised nothing by any route, and count for none. */
export function costOf(
  at: Case,
  { road, packages }: Pick<Laid, 'road' | 'packages'>,
  own: OwnFigures = {},
): Cost {
  const { family } = at
  const timed = road.steps.map((step) => {
    const effect = effectOf(family, operationOf(step))
    return { step, effect, seconds: paceOf(family, effect, own).high }
  })
  const total = (one: readonly { readonly seconds: number }[]) =>
    one.reduce((sum, { seconds }) => sum + seconds, 0)
  const risks = timed.map((one) => ({ ...one, gravity: gravityOf(family, one) }))
  const gravity = Math.max(0, ...risks.map((one) => one.gravity))
  const whys = [...packages.map(({ fate }) => fate), ...whysOf(family, road.steps)]
  const worst = risks.filter((one) => one.gravity === gravity)
  return {
    data: Math.max(0, ...whys.map((why) => DATA[FATE_OF[why]])),
    gravity,
    seconds: gravity === 0 ? 0 : Math.ceil(total(worst)),
    minutes: Math.ceil(total(timed) / MINUTE),
    hands: Math.ceil(total(timed.filter(({ effect }) => effect.hands)) / MINUTE),
    fetch: packages.length > 0 && at.shelved.state === 'known' ? fetchOf(at) : 0,
    packages: packages.length,
  }
}

/** In 16 MiB of the real package. */
const fetchOf = ({ shelved: { manifest } }: Case): number =>
  Math.ceil(
    manifest.images.reduce((sum, { storedSize }) => sum + storedSize * manifest.scale, 0) /
      (FETCH_MIB * MIB),
  )

/**
 * How grave a loss of power is in the middle of a step, as far as family and step say so: dead where a part that is
 * kept once is under way, no start and the data safe where a part of the running system is, again where an erase or a
 * lock is; a package that is written to the other slot, or only brought, is taken up.
 */
function gravityOf(
  family: Family,
  { step, effect }: { readonly step: StepBody; readonly effect: Effect },
): number {
  if (step.kind === 'write') return isKeptOnce(family, step.image.role) ? 4 : 2
  if (step.kind === 'push' || step.kind === 'install') return step.slot === undefined ? 2 : 0
  return effect.erases.length > 0 || step.kind === 'lock' ? 1 : 0
}

const isKeptOnce = ({ keptOnce }: Family, role: PartRole): boolean => keptOnce.includes(role)
