/**
 * What steps may draw of a charge. Reads steps with their effects; gives percent, no less than what draws up to an install and
 * leaves what that asks for as it starts. A known fault of the board that drains does so from the first step to the last.
 */
import type { Effect } from '../effect/effect.ts'
import type { Family } from '../family/profile.ts'
import { leastToInstall } from '../match/charge.ts'
import type { OwnFigures } from '../pace/pace.ts'
import { chargeDrawn, drainOf } from '../pace/pace.ts'
import type { Step } from './step.ts'

/** Steps in order, each with its effect. */
export type Acting = { readonly steps: readonly Step[]; readonly effects: readonly Effect[] }

/** The costliest step once more and a way out included. `times`: as many times as fast as the family says. */
export function stepsDraw(
  family: Family,
  { steps, effects }: Acting,
  { own = {}, times = 1 }: { readonly own?: OwnFigures; readonly times?: number } = {},
): number {
  const drains = effects.map((effect) => drainOf(family, effect, own) * times)
  return Math.max(
    chargeDrawn(family, effects, own) * times,
    untilInstalls(family, { steps, drains }),
  )
}

/** What must be there for each install to find what it asks for; 0 where nothing is installed. */
export function untilInstalls(
  family: Family,
  { steps, drains }: { readonly steps: readonly Step[]; readonly drains: readonly number[] },
): number {
  let spent = 0
  let most = 0
  for (const [n, step] of steps.entries()) {
    const least = leastFor(family, step)
    const drain = drains[n] ?? 0
    /* What is pushed is looked at once all of it is there. */
    if (least > 0) most = Math.max(most, spent + least + (step.kind === 'push' ? drain : 0))
    spent += drain
  }
  return most
}

const leastFor = (family: Family, step: Step): number =>
  step.kind === 'push' || step.kind === 'install'
    ? leastToInstall(family, step.store, step.mode)
    : 0
