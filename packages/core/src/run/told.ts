/**
 * What is told of a run beside its state: what was done and when, how long still, in which mode it should be.
 * Reads a run's steps, commands and journal; gives figures. Model time is ms of the device's own clock.
 */
import type { Command } from '../command/command.ts'
import type { Seconds } from '../pace/pace.ts'
import { sum } from '../pace/pace.ts'
import { stepAt } from '../command/placed.ts'
import type { PlacedStep } from '../command/placed.ts'
import type { RunEvidence } from './evidence.ts'
import { secondsOf } from './figures.ts'
import type { JournalEntry } from './journal.ts'

type Told = Pick<PlacedStep, 'number' | 'seconds' | 'firstCommand'>

/** One thing that was done: ms of model time since the run began, its step, seconds it took if that is known. */
export type WasDone<Step> = {
  readonly since: number
  readonly step: Step | undefined
  readonly seconds: number | undefined
  readonly evidence: RunEvidence
}

/** Everything that was done, in order. */
export function doneIn<Step extends { readonly firstCommand: number }>(
  steps: readonly Step[],
  journal: readonly JournalEntry[],
): readonly WasDone<Step>[] {
  const lasted = secondsOf(journal)
  const began = journal.find(({ at }) => at !== undefined && at > 0)?.at ?? 0
  return journal.flatMap((entry) =>
    entry.kind === 'done'
      ? [
          {
            since: Math.max(0, (entry.at ?? began) - began),
            step: stepAt(steps, entry.command),
            seconds: lasted.get(entry.command),
            evidence: entry.evidence,
          },
        ]
      : [],
  )
}

/** Seconds to the end: the rest of the step under way, by its bytes that are kept, and every step after it. */
export function secondsLeft(
  steps: readonly Told[],
  at: number,
  under: { readonly command: Command | undefined; readonly got: number },
): Seconds {
  const { command, got } = under
  const share = command?.kind === 'put' ? got / command.size : 0
  const now = steps.find(({ number }) => number === at)?.seconds ?? { low: 0, high: 0 }
  const after = steps.filter(({ number }) => number > at).map(({ seconds }) => seconds)
  const rest = { low: now.low * (1 - share), high: now.high * (1 - share) }
  return sum([rest, ...after])
}
