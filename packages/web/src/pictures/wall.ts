/** The wall's arithmetic: how wide each brick is. Cube-root scale, so that 4 MiB are seen beside 4 GiB. */

/** A brick is at least this wide, in px, whatever its size. */
export const BRICK_LEAST_PX = 40

/** Columns of a grid in which every brick is at least wide enough, and grows with the root of its size. */
export const columnsOf = (bytes: readonly number[]): string =>
  bytes.map((size) => `minmax(${BRICK_LEAST_PX}px, ${weightOf(size)}fr)`).join(' ')

/** Cube root of MiB, to two places; never nothing. */
export const weightOf = (bytes: number): number =>
  Math.max(0.1, Math.round(Math.cbrt(bytes / 1024 ** 2) * 100) / 100)

/** "0:12", "5:20"; a part of a second counts as one. */
export function clockOf(seconds: number): string {
  const whole = Math.ceil(seconds)
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}
