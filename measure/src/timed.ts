/** Timing by the rule of this house: the median of seven after two warm-ups. */
import { performance } from 'node:perf_hooks'

const WARM_UPS = 2
const RUNS = 7

export type Timing = { readonly median: number; readonly low: number; readonly high: number }

/** Milliseconds of `run`. */
export async function timed(run: () => unknown): Promise<Timing> {
  const [only] = await alternating([run])
  if (only === undefined) throw new Error('nothing was timed')
  return only
}

/** Milliseconds of several, taken in turn, so that a machine that slows down slows all alike. */
export async function alternating(runs: readonly (() => unknown)[]): Promise<readonly Timing[]> {
  const times = runs.map((): number[] => [])
  for (let round = 0; round < WARM_UPS + RUNS; round += 1)
    for (const [index, run] of runs.entries()) {
      const began = performance.now()
      await run()
      if (round >= WARM_UPS) times[index]?.push(performance.now() - began)
    }
  return times.map((list) => {
    const sorted = [...list].sort((a, b) => a - b)
    return {
      median: sorted[Math.floor(sorted.length / 2)] ?? 0,
      low: sorted[0] ?? 0,
      high: sorted.at(-1) ?? 0,
    }
  })
}

export const spread = ({ low, high }: Timing): string =>
  `${low.toFixed(0)} to ${high.toFixed(0)} ms`
