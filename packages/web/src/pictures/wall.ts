/** The wall's arithmetic: how wide each brick is. Cube-root scale, so that 4 MiB are seen beside 4 GiB. */

/** A brick is at least this wide, in px, whatever its size; room for its edges and a time. */
export const BRICK_LEAST_PX = 40
/** Letters of a brick's name at its size, and what stands at both sides of it, in px. */
const LETTER_PX = { usual: 6.5, wide: 10, thin: 3.2 } as const
const SIDES_PX = 9

/** Columns of a grid in which every brick has room for its name, and grows with the root of its size. */
export const columnsOf = (
  bricks: readonly { readonly name: string; readonly bytes: number }[],
): string =>
  bricks.map(({ name, bytes }) => `minmax(${leastOf(name)}px, ${weightOf(bytes)}fr)`).join(' ')

/** Width, in px, below which the bricks of a wall go on sideways; `GAP_PX` stands between two. */
export const GAP_PX = 3
export const widthOf = (bricks: readonly { readonly name: string }[]): number =>
  bricks.reduce((sum, { name }) => sum + leastOf(name) + GAP_PX, -GAP_PX)

/** Width below which a name would be cut. */
export function leastOf(name: string): number {
  const letters = Array.from(name, (one) => LETTER_PX[sizeOf(one)])
  return Math.max(BRICK_LEAST_PX, Math.ceil(letters.reduce((sum, one) => sum + one, SIDES_PX)))
}
const sizeOf = (letter: string): keyof typeof LETTER_PX =>
  /[mwMW]/.test(letter) ? 'wide' : /[ijl.]/.test(letter) ? 'thin' : 'usual'

/** Cube root of MiB, to two places; never nothing. */
export const weightOf = (bytes: number): number =>
  Math.max(0.1, Math.round(Math.cbrt(bytes / 1024 ** 2) * 100) / 100)

/** "0:12", "5:20"; a part of a second counts as one. */
export function clockOf(seconds: number): string {
  const whole = Math.ceil(seconds)
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}
