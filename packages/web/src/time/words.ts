/**
 * Moments in words, in the shop's zone: "16:30", "today 16:30", "tomorrow 11:00", "Fri 23 Oct 09:00".
 * Reads ISO moments and now; knows no clock of its own.
 */
const DAY_MS = 86_400_000

/** "16:30" */
export function clockTime(at: number, zone: string): string {
  return format(at, zone, { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' })
}

/** "16:30:05" */
export function exactTime(at: number, zone: string): string {
  return format(at, zone, {
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    hourCycle: 'h23',
  })
}

/** "Thursday" */
export const weekday = (at: number, zone: string): string => format(at, zone, { weekday: 'long' })

/** "15 October" */
export const dayAndMonth = (at: number, zone: string): string =>
  format(at, zone, { day: 'numeric', month: 'long' })

/** How many calendar days of the zone lie from `now` to `at`. */
export function daysBetween(now: number, at: number, zone: string): number {
  return Math.round((midnight(at, zone) - midnight(now, zone)) / DAY_MS)
}

/** "today 16:30", "yesterday 09:05", "tomorrow 11:00", else "Fri 23 Oct 09:00". */
export function whenWords(at: number, now: number, zone: string): string {
  const time = clockTime(at, zone)
  const days = daysBetween(now, at, zone)
  const near = { '-1': 'yesterday', 0: 'today', 1: 'tomorrow' }[days]
  if (near !== undefined) return `${near} ${time}`
  const date = format(at, zone, { weekday: 'short', day: 'numeric', month: 'short' })
  return `${date.replace(',', '')} ${time}`
}

/** The date as a calendar field writes it, "2026-10-15T16:30", in the zone. */
export function fieldOf(at: number, zone: string): string {
  const parts = partsOf(at, zone)
  return `${parts['year']}-${parts['month']}-${parts['day']}T${parts['hour']}:${parts['minute']}`
}

/** The moment of a calendar field in the zone; undefined when it is none. */
export function momentOfField(text: string, zone: string): number | undefined {
  if (!/^\d{4}-\d\d-\d\dT\d\d:\d\d$/.test(text)) return undefined
  const asUtc = Date.parse(`${text}:00Z`)
  if (Number.isNaN(asUtc)) return undefined
  /* Twice, because the offset at the first guess may be that of the other side of a clock change. */
  const guess = asUtc - offsetAt(asUtc, zone)
  return asUtc - offsetAt(guess, zone)
}

/** How far the zone's clock runs before UTC at a moment, in ms. */
function offsetAt(at: number, zone: string): number {
  return Date.parse(`${fieldOf(at, zone)}:00Z`) - at
}

function midnight(at: number, zone: string): number {
  const parts = partsOf(at, zone)
  return Date.parse(`${parts['year']}-${parts['month']}-${parts['day']}T00:00:00Z`)
}

function partsOf(at: number, zone: string): Readonly<Record<string, string>> {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  }).formatToParts(at)
  return Object.fromEntries(parts.map(({ type, value }) => [type, value]))
}

function format(at: number, zone: string, options: Intl.DateTimeFormatOptions): string {
  return new Intl.DateTimeFormat('en-GB', { timeZone: zone, ...options }).format(at)
}
