/** What a page tells of a run beside its state: what was done and when, how long still, how it looks. */
import type { RunShown } from '@plain-slate/api'
import type { DeviceFacts, Family, JournalEntry, Mode } from '@plain-slate/core'
import { isoOf, looksOf, ms, msOf, secondsOf, sum } from '@plain-slate/core'
import type { RunRow } from '../tables/runs.ts'

/** Everything that was done, in order. Shop time is that of the start plus the device's own. */
export function logOf(run: RunRow, journal: readonly JournalEntry[]): RunShown['log'] {
  const lasted = secondsOf(journal)
  const began = journal.find(({ at }) => at !== undefined && at > 0)?.at ?? 0
  return journal.flatMap((entry) => {
    if (entry.kind !== 'done') return []
    const step = [...run.steps].reverse().find((one) => one.firstCommand <= entry.command)
    const since = Math.max(0, (entry.at ?? began) - began)
    return [
      {
        at: isoOf(ms(Math.round(msOf(run.startedAt) + since))),
        kind: step?.kind ?? '',
        facts: step?.facts ?? {},
        seconds: lasted.get(entry.command) ?? null,
        evidence: entry.evidence,
      },
    ]
  })
}

/** Seconds to the end: the rest of the step under way, and every step after it. */
export function leftOf(run: RunRow, next: number, at: number): RunShown['left'] {
  if (run.state === 'ended') return { low: 0, high: 0 }
  const command = run.commands[next]
  const share = command?.kind === 'put' ? (run.shown?.got ?? 0) / command.size : 0
  const now = run.steps.find(({ number }) => number === at)?.seconds ?? { low: 0, high: 0 }
  const after = run.steps.filter(({ number }) => number > at).map(({ seconds }) => seconds)
  const rest = { low: now.low * (1 - share), high: now.high * (1 - share) }
  return { ...sum([rest, ...after]) }
}

/** What the device should show: the look of the mode that its step needs, in the family's words. */
export function looksNow(
  family: Family | undefined,
  run: RunRow,
  seen: DeviceFacts | undefined,
): string | null {
  if (family === undefined) return null
  const command = run.commands[run.shown?.next ?? 0]
  const mode: Mode | undefined =
    command?.kind === 'put' || command?.kind === 'digest'
      ? 'loader'
      : command?.kind === 'restart'
        ? command.to
        : seen?.mode
  return mode === undefined ? null : looksOf(family, mode)
}
