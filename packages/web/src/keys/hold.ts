/** Holding: what cannot be undone is held down for a while, never clicked. Time is passed in. */
export const HOLD_MS = 1500

/** From 0 (not held) to 1 (held long enough). `since` undefined: not held. */
export function heldShare(since: number | undefined, now: number): number {
  if (since === undefined) return 0
  return Math.min(Math.max((now - since) / HOLD_MS, 0), 1)
}
