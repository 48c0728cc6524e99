/**
 * Readings that somebody took back: a value that was mistyped, or seen on another device. Reads the readings of a slip in
 * their order; gives those that stand. Both stay on record: the reading, and that it was taken back.
 */
import type { Reading } from './identity.ts'

export type KeptReading = Reading & {
  /** It takes back whatever of this fact, value and source was put down before it. */
  readonly takesBack?: boolean
}

type What = Pick<Reading, 'fact' | 'value' | 'source'>
const isSame = (a: What, b: What): boolean =>
  a.fact === b.fact && a.value === b.value && a.source === b.source

/** The readings that stand; said again after it was taken back, one stands again. */
export const standingReadings = (kept: readonly KeptReading[]): readonly Reading[] =>
  kept.filter(
    (one, index) =>
      one.takesBack !== true &&
      !kept.slice(index + 1).some((later) => later.takesBack === true && isSame(one, later)),
  )

/** The reading that stands of a fact, a value as it is shown, and a source. */
export const standingOne = (
  readings: readonly Reading[],
  { fact, value, source }: What,
): Reading | undefined =>
  readings.findLast(
    (one) => one.fact === fact && one.source === source && String(one.value) === String(value),
  )
