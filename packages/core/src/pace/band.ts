/**
 * The pace band: where a step is against its usual time, where it will end at the present rate, and
 * whether anything moves at all. Reads a range, the seconds that passed, the share that is done and how
 * long nothing moved; gives normal, slow or stuck. Slow is a matter of time; stuck is one of silence, and
 * a step that has no limit of silence (a first start) is never stuck. Arithmetic only, no drawing.
 */
import type { Seconds } from './pace.ts'

/** The band is drawn to this many times the usual time. */
const DRAWN_TIMES = 2
/** A share below this says nothing of a rate yet. */
const SHARE_LEAST = 0.02

export type Band = {
  readonly low: number
  readonly high: number
  /** Where the drawing ends, in seconds. */
  readonly drawnTo: number
  readonly now: number
  /** Seconds at which it will end at the present rate; undefined: no rate is known. */
  readonly ends: number | undefined
  readonly word: 'normal' | 'slow' | 'stuck'
}

/** Seconds in which nothing moved, and how many of them are too many; undefined: no number is. */
export type Silence = { readonly quiet: number; readonly limit: number | undefined }

/** `share`: of the step, 0 to 1; undefined where nothing is counted. */
export function bandOf(
  { low, high }: Seconds,
  passed: number,
  share: number | undefined,
  { quiet, limit }: Silence,
): Band {
  const ends = share !== undefined && share > SHARE_LEAST ? passed / share : undefined
  const isStuck = limit !== undefined && quiet > limit
  const word = isStuck ? 'stuck' : (ends ?? passed) > high ? 'slow' : 'normal'
  const drawnTo = Math.max(high * DRAWN_TIMES, passed * 1.05)
  return { low, high, drawnTo, now: passed, ends, word }
}
