/**
 * When a copy of the shop is due, and whether one must be said to fail or to have grown old. Reads when copies were tried
 * and came out; gives a decision. Times are real ms; the hour is of the shop's own day.
 */
export type CopyTimes = {
  /** When the house named the folder. */
  readonly named: number
  readonly last: { readonly at: number; readonly whole: boolean } | undefined
  /** When the newest whole one was made. */
  readonly good: number | undefined
}

const HOUR = 3_600_000
/** At night nobody waits for the disk. */
const NIGHT = { from: 2, to: 5 } as const
/** One a night, and no second in the same. */
const NIGHTLY = 20 * HOUR
/** A night that was missed is made good by day. */
const MISSED = 28 * HOUR
/** One that failed is tried again, and not at once. */
const AGAIN = 2 * HOUR
/** An older one is told to whoever opens the shop. */
export const COPY_OLD = 36 * HOUR

/** Whether a copy is to be begun. */
export function isCopyDue({ last, good }: CopyTimes, now: number, hour: number): boolean {
  if (last === undefined) return true
  if (!last.whole) return now - last.at >= AGAIN
  if (good === undefined || now - good >= MISSED) return now - last.at >= AGAIN
  return hour >= NIGHT.from && hour < NIGHT.to && now - last.at >= NIGHTLY
}

/** What is to be said of the copies. */
export function copyTrouble(
  { named, last, good }: CopyTimes,
  now: number,
): 'failed' | 'old' | 'none' {
  if (last !== undefined && !last.whole) return 'failed'
  return now - (good ?? named) > COPY_OLD ? 'old' : 'none'
}

/** Why a copy failed: each a code with its facts, so that a page says it in its own words. */
export const COPY_FAULTS = [
  'not-running',
  'other-database',
  'inside',
  'other-things',
  'other-shop',
  'no-account',
  'unread-account',
  'book',
  'no-room',
  'no-place',
  'tool',
  'other',
] as const
export type CopyFault = (typeof COPY_FAULTS)[number]
