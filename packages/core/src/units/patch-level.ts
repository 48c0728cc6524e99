/** Days that a patch level may bear. Reads two ISO dates; gives whether the first lies too far ahead of the second. */

/** Makers give out a patch level some days before the day that it bears. */
const AHEAD_DAYS = 31
const DAY_MS = 86_400_000

/** Nobody can have made it yet. */
export const isAhead = (level: string, today: string): boolean =>
  Date.parse(level) > Date.parse(today) + AHEAD_DAYS * DAY_MS
