/**
 * What is agreed and signed, and for how long. Reads the lines of a slip, each as it was said, and the shop's clock;
 * gives whether a word still holds, and why it ended. A word ends when its plan was taken anew, when something was said
 * against the work since, when it was taken back, and when it grew old; what ended never holds again by itself.
 */
import type { Line } from '../terms/line.ts'
import { topicOf } from '../terms/line.ts'
import { isAgainst } from './intake.ts'

const HOUR_MS = 3_600_000
const DAY_MS = 24 * HOUR_MS

/**
 * How long a word holds, ms of the shop's clock. What somebody made sure of at the bench holds for the working day; a copy
 * and a count of things that are still in use for three days; an owner's consent for a month. Our own figures, since a
 * shop that waits longer has to look again.
 */
export const HOLDS_MS = {
  signature: 12 * HOUR_MS,
  copy: 3 * DAY_MS,
  consent: 30 * DAY_MS,
} as const

/** Readings of what a device changes by itself (its build after an update of its own, say) are old after this many days. */
export const READINGS_DAYS = 14
/** The last moment whose readings are old; `today`: an ISO date of the shop's clock. */
export const readingsOldBefore = (today: string): number =>
  Date.parse(`${today}T00:00:00Z`) - READINGS_DAYS * DAY_MS

/** Why a word that was given does not hold. */
export const ENDS = ['plan', 'against', 'old'] as const
export type EndOfWord = (typeof ENDS)[number]

/** What a word is held against: when its plan was taken, when something was last said against the work, and now. */
export type WordTimes = {
  readonly plan: number | undefined
  readonly against: number | undefined
  readonly now: number
}

/** How long a topic's word holds. */
function holdsFor(topic: string): number {
  if (topic === 'ready.backup') return HOLDS_MS.copy
  const group = topicOf(topic)?.group
  return group === 'fate' || group === 'consent' ? HOLDS_MS.consent : HOLDS_MS.signature
}

/** A copy that was made stays one whatever is planned, and whatever its owner thinks of the rest. */
const isOfItself = (topic: string): boolean => topic === 'ready.backup'

/** Why a word for a plan does not hold; undefined: it does. No plan: there is nothing to hold for. */
export function wordEnd(
  { topic, at }: Pick<Line, 'topic' | 'at'>,
  { plan, against, now }: WordTimes,
): EndOfWord | undefined {
  if (!isOfItself(topic)) {
    if (plan === undefined || at < plan) return 'plan'
    if (against !== undefined && at < against) return 'against'
  }
  return now - at > holdsFor(topic) ? 'old' : undefined
}

/** When something was last said against the work: a consent withdrawn, a halt of Intake. Reads every line, not the newest alone. */
export const lastAgainst = (lines: readonly Line[]): number | undefined =>
  lines.findLast(({ topic, answer }) => isAgainst(topic, answer))?.at
