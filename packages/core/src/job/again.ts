/**
 * Another piece of work on the same slip: back to stock after service, the lock closed later. Reads lines as they were
 * put down and when the last run began and ended; gives since when the slip is at work anew, and the lines that still
 * count. What was said of a route, of a plan and of its proof was said of the work that is done; what was said at the
 * counter stays, and so does what holds for the slip as a whole: a rule overruled, a school departed from, a permit.
 */
import type { Line } from '../terms/line.ts'
import { topicOf } from '../terms/line.ts'
import type { Stage } from '../terms/slip.ts'

export const AGAIN_TOPIC = 'again.plan'

/** Stages whose lines are of one piece of work. */
const OF_ONE_WORK: readonly Stage[] = [
  'firmware',
  'proof',
  'compare',
  'ready',
  'write',
  'first-start',
]
/** What is undone and given back is said at the end of all of it. */
const AT_THE_END: readonly string[] = ['undo', 'back']
/** What holds for the slip, whatever is done on it. */
const OF_THE_SLIP: readonly string[] = ['overrule', 'depart', 'permit', 'again']

/** The last run of a slip, ms of the shop's clock; `endedAt` undefined: it did not come to its end. */
export type LastRun = { readonly startedAt: number; readonly endedAt: number | undefined }

/**
 * When the newest piece of work began, ms of the shop's clock; undefined: there was no other before it. It begins after a
 * run that came to its end, and its own runs are begun later.
 */
export function againSince(
  lines: readonly Pick<Line, 'topic' | 'at'>[],
  last: LastRun | undefined,
): number | undefined {
  const said = lines.findLast(({ topic }) => topic === AGAIN_TOPIC)?.at
  if (said === undefined || last === undefined) return undefined
  const isOwn = last.startedAt > said
  return isOwn || (last.endedAt !== undefined && last.endedAt <= said) ? said : undefined
}

/** The lines that count for the work that began then. */
export const linesSince = <One extends Pick<Line, 'topic' | 'at'>>(
  lines: readonly One[],
  since: number | undefined,
): readonly One[] =>
  since === undefined ? lines : lines.filter((line) => line.at >= since || !isOfOneWork(line.topic))

function isOfOneWork(topic: string): boolean {
  const known = topicOf(topic)
  if (known === undefined || OF_THE_SLIP.includes(known.group)) return false
  return OF_ONE_WORK.includes(known.stage) || AT_THE_END.includes(known.group)
}
