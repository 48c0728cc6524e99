/**
 * How far two builds are from each other, and why they stand so: by which segment, how many of what; or which segment
 * keeps them from having an order. Reads a grammar and two ids; gives codes and figures.
 */
import type { BuildId, Grammar, Order } from './grammar.ts'
import { orderBuilds, periodIn, rank, segmentOf } from './grammar.ts'

export type Distance = {
  readonly order: Order
  /** The segment that decides, or that keeps them apart; empty where both are the same build. */
  readonly segment: string
  /** How many of what lie between; a word has a place and no number. */
  readonly n: number
  readonly unit: 'week' | 'fortnight' | 'count' | 'word' | 'none'
  /** What stands in that segment. */
  readonly here: string
  readonly there: string
}

/** How `there` stands to `here`. */
export function distanceOf(grammar: Grammar, here: BuildId, there: BuildId): Distance {
  const order = orderBuilds(grammar, there, here)
  const by = (order === 'incomparable' ? grammar.alike : grammar.order).find(
    (one) => segmentOf(here, one) !== segmentOf(there, one),
  )
  if (by === undefined) return { order, segment: '', n: 0, unit: 'none', here: '', there: '' }
  const about = { order, segment: by, here: segmentOf(here, by), there: segmentOf(there, by) }
  if (order === 'incomparable') return { ...about, n: 0, unit: 'none' }
  const period = grammar.periods?.find(({ of, year }) => of === by || year === by)
  if (period !== undefined) {
    const placeOf = (build: BuildId) =>
      placeIn(
        period.unit,
        periodIn(period, (segment) => segmentOf(build, segment)),
      )
    const n = Math.abs(placeOf(there) - placeOf(here))
    return { ...about, segment: period.of, n, unit: period.unit }
  }
  const rule = grammar.segments.find((one) => one.kind !== 'mark' && one.name === by)
  if (rule?.kind !== 'counter') return { ...about, n: 0, unit: 'word' }
  const n = Math.abs(rank(grammar, by, about.there) - rank(grammar, by, about.here))
  return { ...about, n, unit: 'count' }
}

const DAY_MS = 86_400_000
const WEEK_DAYS = 7
const CENTURY = 2000
/** Fortnights are counted from the first of January: a year has 26, and a day or two of a 27th. */
const FORTNIGHTS = 26

/** Whole weeks, or fortnights, since the century began. */
function placeIn(
  unit: 'week' | 'fortnight',
  { year, number }: { readonly year: number; readonly number: number },
): number {
  return unit === 'fortnight'
    ? year * FORTNIGHTS + number
    : mondayOfFirst(CENTURY + year) / (WEEK_DAYS * DAY_MS) + number
}

/** The Monday of a year's first week (ISO 8601: the one with the fourth of January), in ms. */
function mondayOfFirst(year: number): number {
  const fourth = Date.UTC(year, 0, 4)
  const weekday = (new Date(fourth).getUTCDay() + WEEK_DAYS - 1) % WEEK_DAYS
  return fourth - weekday * DAY_MS
}
