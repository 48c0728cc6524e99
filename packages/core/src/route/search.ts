/**
 * All ways that are worth taking: from a state by moves to each aim, of which none is worse than another in
 * everything. A label search, exact: a label is dropped only where another stands in a state that can do as much at no
 * higher cost. What a way is to come to at its end goes before its cost: a way that lacks something of it gives way to
 * one that lacks less. Reads moves with guard, effect and cost; gives fronts. The same input gives the same answer.
 */
import type { Cost } from './cost.ts'
import { NO_COST, costOfBoth, costOrder, isNoWorse } from './cost.ts'

/** `helpers`: moves that others may come after. `aims`: moves that a way may end in. */
export type World<State, Move> = {
  readonly start: State
  readonly helpers: readonly Move[]
  readonly aims: readonly Move[]
  /** Moves that may come after an aim, for what the end is to be; left out: none. */
  readonly tails?: readonly Move[]
  /** What a state lacks of that, by name; left out: nothing. */
  readonly lacks?: (state: State) => readonly string[]
  /** What a move is called; aims of one name are ways to one end. */
  readonly idOf: (move: Move) => string
  readonly endOf: (move: Move) => string
  readonly allows: (state: State, move: Move, last: boolean) => boolean
  /** What it makes of a state, and what that costs; undefined: it cannot be carried out. */
  readonly apply: (
    state: State,
    move: Move,
    last: boolean,
  ) => { readonly state: State; readonly cost: Cost } | undefined
  /** The state alone, quicker; left out: whatever `apply` says. */
  readonly peek?: (state: State, move: Move) => State | undefined
  /**
   * Whether nothing that `last` did is left once `move` is made: where that could be made before, `last` helped nothing.
   * It is the same for every `last` of one kind. Left out: never.
   */
  readonly overwrites?: (move: Move, last: Move) => boolean
  readonly kindOf?: (last: Move) => string
  /** States of other names are never held against each other. */
  readonly nameOf: (state: State) => string
  /** Whether `a` can do whatever `b` can, where both have one name. */
  readonly covers: (a: State, b: State) => boolean
  /** Whether an end in `a` is as good as one in `b`; left out: ends are held against each other by cost alone. */
  readonly endsAsWell?: (a: State, b: State) => boolean
  /** A way that is asked for: one that is not does for it only with fewer packages; left out: none is. */
  readonly prefers?: (moves: readonly Move[]) => boolean
}

export type Found<State, Move> = {
  readonly moves: readonly Move[]
  readonly cost: Cost
  /** Where it ends, and the states before each of its moves. */
  readonly end: State
  readonly before: readonly State[]
}

export type Front<State, Move> = {
  /** By end, each in the order of cost. */
  readonly ends: ReadonlyMap<string, readonly Found<State, Move>[]>
  /** Labels that were looked at, and whether that was as many as may be: then there may be more ways. */
  readonly labels: number
  readonly limit: boolean
}

/** `most`: labels at the most. `stop`: asked now and then; true gives up with what was found. */
export type Limits = { readonly most: number; readonly stop?: () => boolean }
/** More labels than any shelf makes. */
export const LABELS_MOST = 20_000
const ASKED_EVERY = 64

export function search<State, Move>(
  world: World<State, Move>,
  { most, stop }: Limits = { most: LABELS_MOST },
): Front<State, Move> {
  const start: Found<State, Move> = { moves: [], cost: NO_COST, end: world.start, before: [] }
  const kept = new Map<string, Found<State, Move>[]>([[world.nameOf(world.start), [start]]])
  const ends = new Map<string, Found<State, Move>[]>()
  let edge: readonly Found<State, Move>[] = [start]
  const nextOf = nexts(world)
  let labels = 0
  let limit = false
  while (edge.length > 0 && !limit) {
    const next: Found<State, Move>[] = []
    for (const label of edge) {
      if (!isKept(world, kept, label)) continue
      labels += 1
      limit = labels >= most || (labels % ASKED_EVERY === 0 && stop?.() === true)
      if (limit) break
      for (const move of world.aims) finish(world, ends, label, move)
      next.push(...onwards(world, kept, { label, next: nextOf(label) }))
    }
    edge = next
  }
  return { ends: inOrder(ends), labels, limit }
}

/** Labels by one help more, as far as no other does for them. */
const onwards = <State, Move>(
  world: World<State, Move>,
  kept: Map<string, Found<State, Move>[]>,
  { label, next }: { readonly label: Found<State, Move>; readonly next: readonly Move[] },
): readonly Found<State, Move>[] =>
  next.flatMap((move) => {
    if (!world.allows(label.end, move, false)) return []
    if (isForestalled(world, kept, label, move)) return []
    const on = after(world, label, move, false)
    return on !== undefined && keep(world, kept, on) ? [on] : []
  })

/** Helps that may come after a label: without those before which its own last help was for nothing. */
function nexts<State, Move>({
  helpers,
  overwrites,
  kindOf,
  allows,
}: World<State, Move>): (label: Found<State, Move>) => readonly Move[] {
  const known = new Map<State, Map<string, readonly Move[]>>()
  return ({ moves, before }) => {
    const [last, state] = [moves.at(-1), before.at(-1)]
    if (last === undefined || state === undefined || overwrites === undefined) return helpers
    const mine = known.get(state) ?? new Map<string, readonly Move[]>()
    known.set(state, mine)
    const kind = kindOf?.(last) ?? ''
    const list =
      (kindOf === undefined ? undefined : mine.get(kind)) ??
      helpers.filter((move) => !(overwrites(move, last) && allows(state, move, false)))
    mine.set(kind, list)
    return list
  }
}

/** Another label does for whatever this help leads to, at no more than what has been spent already. */
function isForestalled<State, Move>(
  world: World<State, Move>,
  kept: ReadonlyMap<string, readonly Found<State, Move>[]>,
  label: Found<State, Move>,
  move: Move,
): boolean {
  const then = world.peek?.(label.end, move)
  if (then === undefined) return false
  const there = kept.get(world.nameOf(then)) ?? []
  return there.some((one) => world.covers(one.end, then) && isNoWorse(one.cost, label.cost))
}

function after<State, Move>(
  world: World<State, Move>,
  label: Found<State, Move>,
  move: Move,
  last: boolean,
): Found<State, Move> | undefined {
  if (!world.allows(label.end, move, last)) return undefined
  const done = world.apply(label.end, move, last)
  return (
    done && {
      moves: [...label.moves, move],
      cost: costOfBoth(label.cost, done.cost),
      end: done.state,
      before: [...label.before, label.end],
    }
  )
}

/** Ways that end here: where one could have ended before its last help, that helped nothing. */
function finish<State, Move>(
  world: World<State, Move>,
  ends: Map<string, Found<State, Move>[]>,
  label: Found<State, Move>,
  move: Move,
): void {
  const { endsAsWell, tails = [] } = world
  const before = label.before.at(-1)
  const plain = endsAsWell === undefined && tails.length === 0
  if (plain && before !== undefined && world.allows(before, move, true)) return
  const way = after(world, label, move, true)
  if (way === undefined) return
  const end = world.endOf(move)
  for (const one of tailed(world, way, [world.nameOf(way.end)])) offer(world, ends, end, one)
}

/** A way, and what it comes to by moves after its aim; no state is come to twice after that. */
function tailed<State, Move>(
  world: World<State, Move>,
  way: Found<State, Move>,
  known: readonly string[],
): readonly Found<State, Move>[] {
  const on = (world.tails ?? []).flatMap((move) => after(world, way, move, true) ?? [])
  return [
    way,
    ...on.flatMap((one) => {
      const name = world.nameOf(one.end)
      return known.includes(name) ? [] : tailed(world, one, [...known, name])
    }),
  ]
}

/** Puts a way to its front, unless another does for it; what it does for is dropped. */
function offer<State, Move>(
  world: World<State, Move>,
  ends: Map<string, Found<State, Move>[]>,
  end: string,
  way: Found<State, Move>,
): void {
  const front = ends.get(end) ?? []
  if (front.some((one) => endsBetter(world, one, way))) return
  ends.set(end, [...front.filter((one) => !endsBetter(world, way, one)), way])
}

/** Whether the end of `a` does for that of `b`: it lacks less; or as much, at no higher cost, and is asked for if that is. */
function endsBetter<State, Move>(
  world: World<State, Move>,
  a: Found<State, Move>,
  b: Found<State, Move>,
): boolean {
  const [mine, its] = [world.lacks?.(a.end) ?? [], world.lacks?.(b.end) ?? []]
  if (!mine.every((one) => its.includes(one))) return false
  if (mine.length < its.length) return true
  const asked = world.prefers?.(b.moves) === true && !world.prefers(a.moves)
  if (asked && b.cost.packages <= a.cost.packages) return false
  return world.endsAsWell?.(a.end, b.end) !== false && comesFirst(world, a, b)
}

/** Whether `a` does for `b`: no worse in anything, and of equals the one of the smaller name. */
function comesFirst<State, Move>(
  world: World<State, Move>,
  a: Found<State, Move>,
  b: Found<State, Move>,
): boolean {
  if (!isNoWorse(a.cost, b.cost)) return false
  return costOrder(a.cost, b.cost) !== 0 || nameOf(world, a.moves) <= nameOf(world, b.moves)
}

const nameOf = <State, Move>({ idOf }: World<State, Move>, moves: readonly Move[]): string =>
  moves.map(idOf).join('\n')

/** Keeps a label unless another does for it; what it does for is dropped. */
function keep<State, Move>(
  world: World<State, Move>,
  kept: Map<string, Found<State, Move>[]>,
  label: Found<State, Move>,
): boolean {
  const name = world.nameOf(label.end)
  const there = kept.get(name) ?? []
  const does = (a: Found<State, Move>, b: Found<State, Move>) =>
    world.covers(a.end, b.end) && comesFirst(world, a, b)
  if (there.some((one) => does(one, label))) return false
  kept.set(name, [...there.filter((one) => !does(label, one)), label])
  return true
}

const isKept = <State, Move>(
  world: World<State, Move>,
  kept: ReadonlyMap<string, readonly Found<State, Move>[]>,
  label: Found<State, Move>,
): boolean => kept.get(world.nameOf(label.end))?.includes(label) === true

const inOrder = <State, Move>(
  ends: ReadonlyMap<string, readonly Found<State, Move>[]>,
): Front<State, Move>['ends'] =>
  new Map(
    [...ends]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([end, front]) => [end, [...front].sort((a, b) => costOrder(a.cost, b.cost))]),
  )
