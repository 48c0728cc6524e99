/**
 * The moves that may come before others: those that bring what another asks and does not find. Reads what each move
 * asks and which moves bring it; gives the helpers, backward from the aims. What no way needs is left out before
 * anything is searched.
 */

/** What a move asks: whether that holds at the beginning, and which moves make it hold. */
export type Asked<Move> = { readonly holds: boolean; readonly bring: readonly Move[] }

export type Asking<Move> = {
  readonly aims: readonly Move[]
  /** Every move that could come before another. */
  readonly all: readonly Move[]
  /** Of what other moves bring; what none brings is a wall, and no help. */
  readonly asks: (move: Move) => readonly Asked<Move>[]
  /** Moves that bring what the end is to be; left out: nothing is asked of it. */
  readonly ends?: readonly Move[]
}

/**
 * Helpers, in the order of `all`. An aim that finds all it asks needs none. Of every other, and of each helper, what
 * holds at the beginning counts too: what comes before it may break that, and it may have to be made good again.
 */
export function helpersOf<Move>({ aims, all, asks, ends = [] }: Asking<Move>): readonly Move[] {
  const found = new Set<Move>(ends)
  const wanted = [...ends, ...aims.filter((move) => asks(move).some(({ holds }) => !holds))]
  for (let move = wanted.pop(); move !== undefined; move = wanted.pop())
    for (const other of asks(move).flatMap(({ bring }) => bring)) {
      if (found.has(other)) continue
      found.add(other)
      wanted.push(other)
    }
  return all.filter((move) => found.has(move))
}
