/** Chance from a seed: the same seed, the same faults. mulberry32, a public-domain generator of 32 bits. */
export type Dice = {
  /** From 0 to below 1. */
  readonly share: () => number
  /** A whole number from `least` to `most`. */
  readonly whole: (least: number, most: number) => number
  readonly one: <Value>(list: readonly Value[]) => Value
}

export function diceOf(seed: number): Dice {
  let state = seed >>> 0
  const share = () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state)
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32
  }
  return {
    share,
    whole: (least, most) => least + Math.floor(share() * (most - least + 1)),
    one: (list) => {
      const found = list[Math.floor(share() * list.length)]
      if (found === undefined) throw new RangeError('nothing to choose from')
      return found
    },
  }
}
