/** A cut that a simulated device was told to make by itself, by its own count of bytes kept. */

/** At the nth piece begun from now (1: the next), after so many of its bytes. */
export type PlannedCut = {
  readonly piece: number
  /** More than the piece has: after it is kept and that was said. */
  readonly bytes: number
  readonly kind: 'cable' | 'battery' | 'computer'
}

/** The byte of the open piece at which a planned cut falls within a chunk. */
export function cutWithin(
  cut: PlannedCut | undefined,
  offset: number,
  length: number,
): number | undefined {
  if (cut?.piece !== 0 || cut.bytes <= offset || cut.bytes > offset + length) return undefined
  return cut.bytes
}
