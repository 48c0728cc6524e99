/** What core tells of a run, as the contract takes it: in shop time, and in the family's words. */
import type { RunShown } from '@plain-slate/api'
import type { DeviceFacts, Family, JournalEntry } from '@plain-slate/core'
import { doneIn, isoOf, looksOf, modeOf, ms, msOf, secondsLeft } from '@plain-slate/core'
import { modeShown } from '../devices/seen.ts'
import type { RunRow } from '../tables/runs.ts'

/** Everything that was done, in order. Shop time is that of the start plus the device's own. */
export const logOf = (run: RunRow, journal: readonly JournalEntry[]): RunShown['log'] =>
  doneIn(run.steps, journal).map(({ since, step, seconds, evidence }) => ({
    at: isoOf(ms(Math.round(msOf(run.startedAt) + since))),
    kind: step?.kind ?? '',
    facts: step?.facts ?? {},
    seconds: seconds ?? null,
    evidence,
  }))

/** Seconds to the end of a run that is not over. */
export function leftOf(run: RunRow, next: number, at: number): RunShown['left'] {
  if (run.state === 'ended') return { low: 0, high: 0 }
  const under = { command: run.commands[next], got: run.shown?.got ?? 0 }
  return { ...secondsLeft(run.steps, at, under) }
}

/** What the device should show: the look of the mode that its step needs, in the family's words. */
export function looksNow(
  family: Family | undefined,
  run: RunRow,
  seen: DeviceFacts | undefined,
): RunShown['looks'] {
  const mode = modeOf(run.commands[run.shown?.next ?? 0]) ?? seen?.mode
  const says = family === undefined || mode === undefined ? undefined : looksOf(family, mode)
  return mode === undefined || says === undefined ? null : { mode: modeShown(family, mode), says }
}
