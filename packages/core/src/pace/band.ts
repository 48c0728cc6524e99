/**
 * The pace band: where a step is against its usual time, and where it will end at the present rate. Reads
 * a range, the seconds that passed and the share that is done; gives normal, slow or stuck. Arithmetic
 * only, no drawing.
 */
import type { Seconds } from './pace.ts'

/** Past its usual time a step is slow; past this many times that, it is stuck. */
export const SLOW_TIMES = 1.5
/** The band is drawn to this many times the usual time. */
const DRAWN_TIMES = 2
/** A share below this says nothing of a rate yet. */
const SHARE_LEAST = 0.02

export type Band = {
  readonly low: number
  readonly high: number
  /** Where slow ends and stuck begins, and where the drawing ends, in seconds. */
  readonly slowTo: number
  readonly drawnTo: number
  readonly now: number
  /** Seconds at which it will end at the present rate; undefined: no rate is known. */
  readonly ends: number | undefined
  readonly word: 'normal' | 'slow' | 'stuck'
}

/** `share`: of the step, 0 to 1; undefined where nothing is counted. */
export function bandOf({ low, high }: Seconds, passed: number, share: number | undefined): Band {
  const slowTo = high * SLOW_TIMES
  const ends = share !== undefined && share > SHARE_LEAST ? passed / share : undefined
  const measure = ends ?? passed
  const word = measure > slowTo ? 'stuck' : measure > high ? 'slow' : 'normal'
  const drawnTo = Math.max(high * DRAWN_TIMES, passed * 1.05)
  return { low, high, slowTo, drawnTo, now: passed, ends, word }
}
