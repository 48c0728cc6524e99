/** A cut that a simulated device was told to make by itself, by its own count of bytes kept or of what it was asked. */
import type { LinkRequest, Mode } from '@plain-slate/core'

/**
 * At the nth change from now (1: the next): a piece begun, an erase, a turn of the lock, a word on the slot.
 * A piece is cut after so many of its bytes; anything else before it is heard (0) or once it is done.
 */
export type PlannedCut = {
  readonly piece: number
  /** More than the piece has: after it is kept and that was said. */
  readonly bytes: number
  readonly kind: 'cable' | 'battery' | 'computer'
  /** It counts requests of this kind instead, in this mode or whichever, and falls before one is heard. */
  readonly asked?: Asked | undefined
}
type Asked = { readonly verb: LinkRequest['verb']; readonly mode?: Mode | undefined }

/** The byte of the open piece at which a planned cut falls within a chunk. */
export function cutWithin(
  cut: PlannedCut | undefined,
  offset: number,
  length: number,
): number | undefined {
  if (cut?.piece !== 0 || cut.bytes <= offset || cut.bytes > offset + length) return undefined
  return cut.bytes
}

/** The same cut, one nearer where it counts requests of this kind. */
export function askedOnce(cut: PlannedCut | undefined, verb: LinkRequest['verb'], mode: Mode) {
  const counts = cut?.asked?.verb === verb && (cut.asked.mode ?? mode) === mode
  return counts ? counted(cut) : cut
}

/** The same cut, one change nearer. */
export const counted = (cut: PlannedCut | undefined): PlannedCut | undefined =>
  cut === undefined ? undefined : { ...cut, piece: cut.piece - 1 }
