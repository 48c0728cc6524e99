/** What core tells of a run, as the contract takes it: in shop time, and in the family's words. */
import type { RunShown } from '@plain-slate/api'
import type { DeviceFacts, Family, JournalEntry, StepSaid } from '@plain-slate/core'
import {
  doneIn,
  isoOf,
  looksOf,
  modeOf,
  ms,
  msOf,
  secondsLeft,
  stepSaidSchema,
} from '@plain-slate/core'
import { modeShown } from '../devices/seen.ts'
import type { RunRow } from '../tables/runs.ts'

/**
 * Every step that was done, in order. Shop time is that of the start plus the device's own. `names`: people by the ids that a
 * journal has; who is none of them (the shell) stands as it was put down.
 */
export const logOf = (
  run: RunRow,
  journal: readonly JournalEntry[],
  names: ReadonlyMap<string, string> = new Map(),
): RunShown['log'] =>
  byStep(doneIn(run.steps, journal)).flatMap(({ since, step, seconds, evidence }) =>
    step === undefined
      ? []
      : [
          {
            ...saidOnly(step),
            at: isoOf(ms(Math.round(msOf(run.startedAt) + since))),
            seconds: seconds ?? null,
            evidence:
              evidence.is === 'person'
                ? { ...evidence, by: names.get(evidence.by) ?? evidence.by }
                : evidence,
          },
        ],
  )

/** As much of a step as its sentence needs. */
const saidOnly = (step: RunRow['steps'][number]): StepSaid => stepSaidSchema.parse(step)

type Done = ReturnType<typeof doneIn<RunRow['steps'][number]>>[number]

/** What was done for one step is one line: it ends with the last of it, and took as long as all. */
function byStep(done: readonly Done[]): readonly Done[] {
  const lines: Done[] = []
  for (const one of done) {
    const last = lines.at(-1)
    const same = last?.step !== undefined && last.step === one.step
    if (!same) lines.push(one)
    else {
      const known = [last.seconds, one.seconds].filter((seconds) => seconds !== undefined)
      const seconds = known.length === 0 ? undefined : known.reduce((sum, more) => sum + more, 0)
      lines[lines.length - 1] = { ...one, seconds }
    }
  }
  return lines
}

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
