/**
 * Model time against real time. `pace` is how many model milliseconds pass in a real one; 0: as fast as
 * bytes go, where model time moves by what devices do alone.
 */
export type ModelClock = {
  readonly pace: number
  /** Model time for a device that was reckoned up to `at`; never before it. */
  readonly now: (at: number) => number
  /** Waits until a model time, in real time. */
  readonly until: (model: number, signal: AbortSignal) => Promise<void>
}

/** A clock that starts at `from`. `real` gives real milliseconds. */
export function modelClock(pace: number, from: number, real: () => number): ModelClock {
  const began = real()
  const model = () => from + (real() - began) * pace
  return {
    pace,
    now: (at) => (pace === 0 ? at : Math.max(at, model())),
    async until(wanted, signal) {
      const wait = pace === 0 ? 0 : (wanted - model()) / pace
      if (wait <= 0 || signal.aborted) return
      await new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, wait)
        signal.addEventListener('abort', () => (clearTimeout(timer), resolve()), { once: true })
      })
    },
  }
}
