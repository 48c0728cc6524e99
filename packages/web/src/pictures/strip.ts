/**
 * The strip's arithmetic: where each step lies. Cube root of seconds, so that six seconds are seen beside
 * six minutes; a stretch of equal risk is never too narrow for its word.
 */
export type Placed = { readonly from: number; readonly to: number }
type Step = { readonly number: number; readonly seconds: { readonly high: number } }
type Stretch = { readonly from: number; readonly to: number }

/** The least share of the width that a stretch takes. */
export const STRETCH_LEAST = 0.09

/** Left and right edge of every step as shares of the width, by its number. */
export function placesOf(
  steps: readonly Step[],
  stretches: readonly Stretch[],
): ReadonlyMap<number, Placed> {
  const weight = ({ seconds }: Step) => Math.cbrt(Math.max(0.05, seconds.high))
  const groups = stretches.map(({ from, to }) =>
    steps.filter(({ number }) => number >= from && number <= to),
  )
  const sums = groups.map((group) => group.reduce((sum, step) => sum + weight(step), 0))
  const widths = widened(sums)
  const places = new Map<number, Placed>()
  let left = 0
  groups.forEach((group, index) => {
    const sum = sums[index] ?? 1
    for (const step of group) {
      const width = ((widths[index] ?? 0) * weight(step)) / sum
      places.set(step.number, { from: left, to: left + width })
      left += width
    }
  })
  return places
}

/** Shares of the whole, none below the least; what that takes comes off the others alike. */
function widened(sums: readonly number[]): readonly number[] {
  const total = sums.reduce((sum, one) => sum + one, 0)
  const least = Math.min(STRETCH_LEAST, 1 / Math.max(1, sums.length))
  const shares = sums.map((one) => one / total)
  const narrow = shares.filter((one) => one < least).length
  const wide = shares.filter((one) => one >= least).reduce((sum, one) => sum + one, 0)
  const rest = 1 - narrow * least
  return shares.map((one) => (one < least ? least : (one / wide) * rest))
}

/** Numbers that follow each other, as runs: [1, 2, 3, 7] is 1 to 3 and 7. */
export function runsIn(numbers: readonly number[]): readonly Stretch[] {
  const runs: Stretch[] = []
  for (const number of [...numbers].sort((a, b) => a - b)) {
    const last = runs.at(-1)
    if (last?.to === number - 1) runs[runs.length - 1] = { ...last, to: number }
    else runs.push({ from: number, to: number })
  }
  return runs
}

/** Left edge and width in percent of a run of steps. */
export function spanOf(places: ReadonlyMap<number, Placed>, { from, to }: Stretch) {
  const left = places.get(from)?.from ?? 0
  const right = places.get(to)?.to ?? left
  return { left: `${left * 100}%`, width: `${(right - left) * 100}%` }
}
