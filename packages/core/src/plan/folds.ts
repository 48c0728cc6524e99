/**
 * What a plan comes to, folded from its steps' declared effects: time and hands as ranges, charge,
 * restarts, what becomes of each of the customer's things and why, how long the way back stays open.
 * No figure here is written by hand for a case.
 */
import type { Effect } from '../effect/effect.ts'
import { effectOf, raisesFloor } from '../effect/effect.ts'
import type { Family } from '../family/profile.ts'
import type { Unheld } from '../match/rule.ts'
import type { Fate, FateWhy } from '../match/rules/data-fate.ts'
import { FATE_OF, FATE_WHYS } from '../match/rules/data-fate.ts'
import type { OwnFigures, Seconds } from '../pace/pace.ts'
import { chargeWith, drainOf, paceOf, sum } from '../pace/pace.ts'
import { drainTimes } from '../match/charge.ts'
import { stepsDraw } from './charge.ts'
import { operationOf } from './operation.ts'
import type { Plan } from './plan.ts'
import { whysOf } from './whys.ts'

/**
 * One of the customer's things, the partition it lies on, what becomes of it and what decides that. A
 * thing for which the family has no place has no name of its own and no partition here.
 */
export type ItemFate = {
  readonly item: string
  readonly name: string
  readonly partition: string
  readonly fate: Fate
  readonly why: FateWhy
}

export type Folds = {
  readonly time: Seconds
  readonly hands: Seconds
  /** Percent drained at the longest, and percent that must be there to begin. */
  readonly drains: number
  readonly needs: number
  /** What may be drawn of it, a way out and the costliest step once more included: without margin and floor. */
  readonly draws: number
  readonly restarts: number
  readonly fates: readonly ItemFate[]
  /** The last step after which the way back is still open; undefined: never open. */
  readonly wayBackUntil: number | undefined
}

/** Effects of a plan, step by step. */
export function effectsOf(plan: Plan, family: Family): readonly Effect[] {
  return plan.steps.map((step) => effectOf(family, operationOf(step)))
}

/** Percent that a plan may draw on this very device, as it and its cell are known now. */
export function drawnBy(
  plan: Plan,
  { family, identity }: Pick<Unheld, 'family' | 'identity'>,
  own: OwnFigures = {},
): number {
  const builds = plan.packages.map(({ manifest }) => manifest.build)
  const times = drainTimes(family, identity, builds)
  return stepsDraw(family, { steps: plan.steps, effects: effectsOf(plan, family) }, { own, times })
}

/** Folds a plan. */
export function fold(plan: Plan, at: Unheld, own: OwnFigures = {}): Folds {
  const { family, house } = at
  const effects = effectsOf(plan, family)
  const timed = effects.map((effect) => ({ effect, pace: paceOf(family, effect, own) }))
  const builds = plan.packages.map(({ manifest }) => manifest.build)
  const times = drainTimes(family, at.identity, builds)
  const drawn = drawnBy(plan, at, own)
  const drains = times * effects.reduce((all, effect) => all + drainOf(family, effect, own), 0)
  return {
    time: sum(timed.map(({ pace }) => pace)),
    hands: sum(timed.filter(({ effect }) => effect.hands).map(({ pace }) => pace)),
    drains,
    needs: chargeWith(drawn, house),
    draws: drawn,
    restarts: effects.filter(({ restarts }) => restarts).length,
    fates: fatesOf(plan, at, effects),
    wayBackUntil: wayBackUntil(plan, at, effects),
  }
}

/**
 * The last step after which the package of the present build can still be put back and started with the
 * data readable: until the floor passes it, the loader is one it does not start under, or a start has
 * made the data belong to a newer release. 0: not even before the first step.
 */
function wayBackUntil(plan: Plan, at: Unheld, effects: readonly Effect[]): number | undefined {
  const back = at.shelf.find(({ key }) => key === plan.wayBack)?.manifest
  if (back === undefined) return undefined
  const { floor, release, loaderVersion } = plan.expected
  const tooLow = back.generation < (floor ?? 0)
  const dataGoesOn = at.family.dataKeys.hangOn.includes('release') && back.release < release
  const loaderTooNew = (back.requires.maxLoader ?? Infinity) < (loaderVersion ?? 0)
  const closes = plan.steps.findIndex((one, index) => {
    const effect = effects[index]
    const loaderWritten = one.kind === 'write' && one.image.role === 'loader'
    if (loaderWritten && loaderTooNew) return true
    if (one.kind === 'first-start' && dataGoesOn) return true
    return effect !== undefined && raisesFloor(at.family, effect) && tooLow
  })
  return closes < 0 ? plan.steps.length : closes
}

/** An item shares the fate of the partition it lies on; one without a place cannot be promised. */
function fatesOf(plan: Plan, at: Unheld, effects: readonly Effect[]): readonly ItemFate[] {
  const written = new Set(effects.flatMap(({ writes }) => writes ?? []))
  const erased = new Set(effects.flatMap(({ erases }) => erases))
  const whole = [...plan.packages.map(({ fate }) => fate), ...whysOf(at.family, plan.steps)]
  const worst = FATE_WHYS.findLast((why) => whole.includes(why)) ?? 'untouched'
  const erasedBy = FATE_OF[worst] === 'wiped' ? worst : 'erased'
  const own = at.family.items.map(({ id, name, partition }) => {
    const why = written.has(partition) ? 'written' : erased.has(partition) ? erasedBy : worst
    return { item: id, name, partition, fate: FATE_OF[why], why }
  })
  const others = plan.placeless.map((item) => ({
    item,
    name: '',
    partition: '',
    fate: FATE_OF.placeless,
    why: 'placeless' as const,
  }))
  return [...own, ...others]
}
