/**
 * What a route costs, in whole numbers: what becomes of the data, the worst moment, minutes, minutes of hands, what is
 * fetched, packages. Reads nothing; gives sums and the order in which one is no worse than another.
 */

/**
 * `data`: 0 kept, or kept after a condition; 1 there and unreadable; 2 wiped, or not to be promised. `gravity`: of the
 * worst moment 0 nothing happens or it is taken up there, 1 a step is made again, 2 it does not start and the data are
 * safe, 4 it is dead; `seconds`: how long it lasts. Minutes and `fetch` (in 16 MiB) are rounded up, move by move.
 */
export type Cost = {
  readonly data: number
  readonly gravity: number
  readonly seconds: number
  readonly minutes: number
  readonly hands: number
  readonly fetch: number
  readonly packages: number
}

export const NO_COST: Cost = {
  data: 0,
  gravity: 0,
  seconds: 0,
  minutes: 0,
  hands: 0,
  fetch: 0,
  packages: 0,
}

/** One after the other: the worst of the data and of the moments, the sum of the rest. */
export function costOfBoth(a: Cost, b: Cost): Cost {
  const worse = moments(a, b) >= 0 ? a : b
  return {
    data: Math.max(a.data, b.data),
    gravity: worse.gravity,
    seconds: a.gravity === b.gravity ? a.seconds + b.seconds : worse.seconds,
    minutes: a.minutes + b.minutes,
    hands: a.hands + b.hands,
    fetch: a.fetch + b.fetch,
    packages: a.packages + b.packages,
  }
}

/** Worst moments: the graver first, then the longer. */
const moments = (a: Cost, b: Cost): number => a.gravity - b.gravity || a.seconds - b.seconds

const SUMS = ['minutes', 'hands', 'fetch', 'packages'] as const

/** Whether nothing of `a` is more than of `b`. */
export const isNoWorse = (a: Cost, b: Cost): boolean =>
  a.data <= b.data && moments(a, b) <= 0 && SUMS.every((one) => a[one] <= b[one])

/** Negative where `a` comes first: data, worst moment, minutes, hands, what is fetched, packages. */
export const costOrder = (a: Cost, b: Cost): number =>
  a.data - b.data || moments(a, b) || SUMS.map((one) => a[one] - b[one]).find((by) => by !== 0) || 0
