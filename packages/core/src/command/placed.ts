/**
 * A plan's steps as they are told and kept with a run: each with its seconds, what a cut in it leaves, and the
 * place of its first command. Reads a plan, its family, the worst cuts and own figures; gives codes and
 * figures, no sentences. Bytes are model bytes.
 */
import { commandsOf } from './command.ts'
import type { Effect } from '../effect/effect.ts'
import type { Family } from '../family/profile.ts'
import type { OwnFigures, Seconds } from '../pace/pace.ts'
import { paceOf, silentLimit } from '../pace/pace.ts'
import { effectsOf } from '../plan/folds.ts'
import type { Plan } from '../plan/plan.ts'
import type { StepSaid } from './said.ts'
import { saidOf } from './said.ts'

/** What a cut leaves, by its code (`rehearsal` has the classes, which stand above this). */
export type PlacedStep<Leaves extends string = string> = StepSaid & {
  readonly number: number
  readonly seconds: Seconds
  readonly hands: boolean
  readonly worst: Leaves
  /** Where its time comes from, and how many measurements are behind it. */
  readonly source: 'family' | 'own' | 'plain'
  readonly n: number
  /** Seconds without a sign after which it is stuck; undefined: silence alone never makes it so. */
  readonly silent: number | undefined
  readonly firstCommand: number
}

/** The steps of a plan; one whose cuts were not rehearsed is `unaffected`. */
export function placedSteps<Leaves extends string>(
  plan: Plan,
  family: Family,
  worst: ReadonlyMap<number, Leaves>,
  unaffected: Leaves,
  own: OwnFigures = {},
): readonly PlacedStep<Leaves>[] {
  const effects = effectsOf(plan, family)
  let firstCommand = 0
  return plan.steps.map((step, index) => {
    const effect = effects[index] as Effect
    const { low, high, source, n } = paceOf(family, effect, own)
    const placed = {
      number: step.number,
      ...saidOf(step, family),
      seconds: { low, high },
      hands: effect.hands,
      worst: worst.get(step.number) ?? unaffected,
      source,
      n,
      silent: silentLimit(family, effect, own),
      firstCommand,
    }
    firstCommand += commandsOf(step).length
    return placed
  })
}

/** Seconds at the longest in which a cut would leave each class. */
export function atRisk<Leaves extends string>(
  steps: readonly Pick<PlacedStep<Leaves>, 'worst' | 'seconds'>[],
): Partial<Record<Leaves, number>> {
  const sums: Partial<Record<Leaves, number>> = {}
  for (const { worst, seconds } of steps) sums[worst] = (sums[worst] ?? 0) + seconds.high
  return sums
}

/** The step that a command belongs to: the last that begins at it or before. */
export const stepAt = <One extends { readonly firstCommand: number }>(
  steps: readonly One[],
  command: number,
): One | undefined => steps.findLast(({ firstCommand }) => firstCommand <= command)
