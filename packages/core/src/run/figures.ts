/**
 * What runs that ended tell of pace: how fast pieces were written, how long digests, restarts and first
 * starts took. Reads commands and journals with their times; gives the figures that a pace takes instead
 * of the family's, once there are enough. The middle eight of ten count: odd ones at both ends are left.
 */
import type { Command } from '../command/command.ts'
import type { PaceKey } from '../family/profile.ts'
import type { OwnFigures } from '../pace/pace.ts'
import type { JournalEntry } from './journal.ts'

const MIB = 1024 * 1024
/** Share of measurements that is left out at each end. */
const TAIL = 0.1

/** A run as far as its pace goes. `scale`: model bytes of one real byte. */
export type TimedRun = {
  readonly commands: readonly Command[]
  readonly journal: readonly JournalEntry[]
  readonly scale: number
}

/** One measurement: MiB a second for paces by bytes, seconds for the others. */
export type Measured = {
  readonly key: PaceKey
  readonly value: number
  readonly partition: string | undefined
}

/** Seconds of every command that was done, by its place; commands without times are left out. */
export function secondsOf(journal: readonly JournalEntry[]): ReadonlyMap<number, number> {
  const begun = new Map<number, number>()
  const lasted = new Map<number, number>()
  for (const { kind, command, at } of journal) {
    if (at === undefined) continue
    const since = begun.get(command)
    if (kind === 'intend') begun.set(command, at)
    else if (since !== undefined) lasted.set(command, (at - since) / 1000)
  }
  return lasted
}

/** The measurements of a run. */
export function measuredIn(run: TimedRun): readonly Measured[] {
  return [...secondsOf(run.journal)].flatMap(([place, seconds]) => {
    const command = run.commands[place]
    return command === undefined || seconds <= 0 ? [] : measure(run, command, seconds)
  })
}

/** The pace that a restart follows. */
const FIRST = { none: 'restart', kept: 'first-start', wiped: 'first-start-wiped' } as const

function measure({ scale }: TimedRun, command: Command, seconds: number): readonly Measured[] {
  switch (command.kind) {
    case 'put':
    case 'digest': {
      const value = (command.size * scale) / MIB / seconds
      const key = command.kind === 'put' ? 'write' : 'digest'
      return [{ key, value, partition: command.partition }]
    }
    case 'restart': {
      const key = FIRST[command.first ?? 'none']
      return [{ key, value: seconds, partition: undefined }]
    }
    case 'erase':
    case 'lock':
      return [{ key: command.kind, value: seconds, partition: undefined }]
    case 'copy': {
      const value = (command.size * scale) / MIB / seconds
      return [{ key: 'copy', value, partition: undefined }]
    }
    case 'push':
    case 'prove-copy':
    case 'drop':
    case 'person':
    case 'meet':
    case 'slot':
    case 'permit':
    case 'merge':
    case 'table':
    case 'tally':
    case 'facts':
      return []
  }
}

/** Own figures from all measurements: how many, and between what most of them lie. */
export function ownFigures(measured: readonly Measured[]): OwnFigures {
  const keys = [...new Set(measured.map(({ key }) => key))]
  return Object.fromEntries(
    keys.map((key) => {
      const mine = measured.filter((one) => one.key === key)
      const sorted = mine.map(({ value }) => value).sort((a, b) => a - b)
      const cut = Math.floor(sorted.length * TAIL)
      const low = sorted[cut] ?? 0
      const high = sorted[sorted.length - 1 - cut] ?? low
      return [key, { n: sorted.length, low, high }]
    }),
  )
}
