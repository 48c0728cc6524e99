/**
 * Another piece of work on the same slip: back to stock after service, the lock closed later. Reads lines as they were
 * put down and when the last run ended; gives since when the slip is at work anew, and the lines that still count. What
 * was said of the device before it was written, of its route and of its proof, was said of the work that is done; what
 * was said at the counter stays.
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

/** When the newest piece of work began, ms of the shop's clock; undefined: there was no other before it. */
export function againSince(
  lines: readonly Pick<Line, 'topic' | 'at'>[],
  endedAt: number | undefined,
): number | undefined {
  if (endedAt === undefined) return undefined
  const said = lines.findLast(({ topic }) => topic === AGAIN_TOPIC)?.at
  return said !== undefined && said >= endedAt ? said : undefined
}

/** The lines that count for the work that began then. A permit and a word against a rule stay with the device. */
export const linesSince = <One extends Pick<Line, 'topic' | 'at'>>(
  lines: readonly One[],
  since: number | undefined,
): readonly One[] =>
  since === undefined ? lines : lines.filter((line) => line.at >= since || !isOfOneWork(line.topic))

function isOfOneWork(topic: string): boolean {
  const known = topicOf(topic)
  if (known === undefined || topic === AGAIN_TOPIC || known.group === 'overrule') return false
  return OF_ONE_WORK.includes(known.stage) || AT_THE_END.includes(known.group)
}
