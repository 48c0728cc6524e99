/**
 * Thousands of random small worlds: what the search finds is what trying every sequence of moves finds, without any
 * knowledge of which moves help and which label does for which.
 */
import { expect, it } from 'vitest'
import { chances } from '../units/chances.ts'
import type { Cost } from './cost.ts'
import { NO_COST, costOfBoth, costOrder, isNoWorse } from './cost.ts'
import { helpersOf } from './relevant.ts'
import type { Limits } from './search.ts'
import { search } from './search.ts'

type State = Readonly<Record<'a' | 'b' | 'floor', number>>
/** What the end is to be: some fact of some value. */
type Goal = { readonly fact: 'a' | 'b'; readonly is: number }
type Move = {
  readonly id: string
  readonly asks: Partial<State>
  readonly most: number
  readonly sets: Partial<State>
  readonly cost: Cost
}
const FACTS = ['a', 'b'] as const
const WORLDS = 3000
const DEPTH = 6

function worldOf(seed: number) {
  const random = chances(seed)
  const whole = (most: number) => Math.floor(random() * most)
  const start: State = { a: 0, b: 0, floor: 0 }
  const some = (share: number): Partial<State> =>
    Object.fromEntries(FACTS.flatMap((fact) => (random() < share ? [[fact, whole(3)]] : [])))
  const moves = Array.from({ length: 5 }, (_, index): Move => ({
    id: `m${index}`,
    asks: some(0.5),
    most: 1 + whole(3),
    sets: { ...some(0.6), ...(random() < 0.3 ? { floor: whole(3) } : {}) },
    cost: {
      data: random() < 0.2 ? whole(3) : 0,
      gravity: whole(3),
      seconds: whole(4),
      minutes: 1 + whole(4),
      hands: whole(3),
      fetch: whole(2),
      packages: 1,
    },
  }))
  const goals = FACTS.flatMap((fact): readonly Goal[] =>
    random() < 0.3 ? [{ fact, is: whole(3) }] : [],
  )
  return { start, moves, aims: moves.slice(0, 2), goals }
}

const allows = (state: State, { asks, most }: Move) =>
  FACTS.every((fact) => asks[fact] === undefined || asks[fact] === state[fact]) &&
  state.floor <= most
const effect = (state: State, { sets }: Move): State => ({
  ...state,
  ...sets,
  floor: Math.max(state.floor, sets.floor ?? 0),
})

const lacking = (goals: readonly Goal[], state: State): readonly string[] =>
  goals.flatMap(({ fact, is }) => (state[fact] === is ? [] : [fact]))

type End = { readonly cost: Cost; readonly lacks: readonly string[] }

/**
 * Every sequence of moves up to a depth that may be carried out and ends in an aim, with as many moves after it as
 * come to no state twice; of their ends the best.
 */
function everyEnd({ start, moves, aims, goals }: ReturnType<typeof worldOf>, aim: Move): End[] {
  const all: End[] = []
  const tails = tailsOf(moves, goals)
  const nameOf = ({ a, b }: State) => `${a} ${b}`
  const end = (state: State, cost: Cost, known: readonly string[]): void => {
    all.push({ cost, lacks: lacking(goals, state) })
    for (const move of tails) {
      const on = allows(state, move) ? effect(state, move) : undefined
      if (on !== undefined && !known.includes(nameOf(on)))
        end(on, costOfBoth(cost, move.cost), [...known, nameOf(on)])
    }
  }
  const go = (state: State, cost: Cost, depth: number): void => {
    if (aims.includes(aim) && allows(state, aim)) {
      const on = effect(state, aim)
      end(on, costOfBoth(cost, aim.cost), [nameOf(on)])
    }
    if (depth === DEPTH) return
    for (const move of moves) {
      const on = effect(state, move)
      if (allows(state, move)) go(on, costOfBoth(cost, move.cost), depth + 1)
    }
  }
  go(start, NO_COST, 1)
  const unique = [...new Map(all.map((one) => [JSON.stringify(one), one])).values()]
  const isBetter = (a: End, b: End) =>
    a.lacks.every((one) => b.lacks.includes(one)) &&
    (a.lacks.length < b.lacks.length || isNoWorse(a.cost, b.cost))
  return unique
    .filter((one) => !unique.some((other) => other !== one && isBetter(other, one)))
    .sort((a, b) => costOrder(a.cost, b.cost) || a.lacks.length - b.lacks.length)
}

/** Moves that make some of it so. */
const tailsOf = (moves: readonly Move[], goals: readonly Goal[]): readonly Move[] =>
  moves.filter(({ sets }) => goals.some(({ fact, is }) => sets[fact] === is))

function found(
  { start, moves, aims, goals }: ReturnType<typeof worldOf>,
  limits: Partial<Limits> = {},
) {
  const helpers = helpersOf<Move>({
    aims,
    all: moves,
    ends: tailsOf(moves, goals),
    asks: ({ asks }) =>
      FACTS.flatMap((fact) =>
        asks[fact] === undefined
          ? []
          : [
              {
                holds: asks[fact] === start[fact],
                bring: moves.filter(({ sets }) => sets[fact] === asks[fact]),
              },
            ],
      ),
  })
  return search<State, Move>(
    {
      start,
      helpers,
      aims,
      tails: tailsOf(moves, goals),
      /* A floor that was raised meanwhile is never better. */
      overwrites: (move, last) => FACTS.every((fact) => !(fact in last.sets) || fact in move.sets),
      lacks: (state) => lacking(goals, state),
      idOf: ({ id }) => id,
      endOf: ({ id }) => id,
      allows,
      apply: (state, move) => ({ state: effect(state, move), cost: move.cost }),
      nameOf: ({ a, b }) => `${a} ${b}`,
      covers: (one, other) => one.floor <= other.floor,
    },
    { most: 20_000, ...limits },
  )
}

it(`finds what trying everything finds, in ${WORLDS} small worlds`, () => {
  let fronts = 0
  let chains = 0
  let tails = 0
  for (let seed = 1; seed <= WORLDS; seed += 1) {
    const world = worldOf(seed)
    const { ends, limit } = found(world)
    expect(limit).toBe(false)
    for (const aim of world.aims) {
      const mine = ends.get(aim.id) ?? []
      const short = mine.filter(({ moves }) => moves.length <= DEPTH)
      const said = short
        .map(({ cost, end }) => ({ cost, lacks: lacking(world.goals, end) }))
        .sort((a, b) => costOrder(a.cost, b.cost) || a.lacks.length - b.lacks.length)
      expect({ seed, aim: aim.id, ends: said }).toEqual({
        seed,
        aim: aim.id,
        ends: everyEnd(world, aim),
      })
      if (mine.some(({ moves }) => !world.aims.includes(moves.at(-1) ?? aim))) tails += 1
      if (mine.length > 1) fronts += 1
      if (mine.some(({ moves }) => moves.length > 2)) chains += 1
    }
  }
  /* The worlds hold what the search is for. */
  expect([fronts > 50, chains > 50, tails > 50]).toEqual([true, true, true])
}, 60_000)

it('gives the same answer for the same world, in whatever order its moves are named', () => {
  for (let seed = 1; seed <= 200; seed += 1) {
    const world = worldOf(seed)
    const turned = { ...world, moves: [...world.moves].reverse() }
    const told = (of: typeof world) =>
      [...found(of).ends].map(([end, front]) => [
        end,
        front.map(({ moves }) => moves.map(({ id }) => id)),
      ])
    expect(told(turned)).toEqual(told(world))
  }
})

it('says that it gave up: at its limit, and when it is told to', () => {
  const world = Array.from({ length: 200 }, (_, seed) => worldOf(seed)).find(
    (one) => found(one).labels > 2,
  )
  if (world === undefined) throw new Error('no world of several labels')
  expect(found(world).limit).toBe(false)
  expect(found(world, { most: 2 })).toMatchObject({ limit: true, labels: 2 })
})

it('gives up when it is told to, and asks for that now and then', () => {
  const helpers = Array.from({ length: 200 }, (_, index) => index)
  const front = search<number, number>(
    {
      start: -1,
      helpers,
      aims: [],
      idOf: String,
      endOf: String,
      allows: (state, move) => move !== state,
      apply: (_state, move) => ({ state: move, cost: { ...NO_COST, packages: 1 } }),
      nameOf: String,
      covers: () => true,
    },
    { most: 20_000, stop: () => true },
  )
  expect(front).toMatchObject({ limit: true, labels: 64 })
})

it('keeps a way that is asked for beside one that costs less, and drops it for one of fewer packages', () => {
  const cost = (minutes: number, packages: number) => ({ ...NO_COST, minutes, packages })
  const moves = { parts: cost(9, 1), device: cost(5, 1), round: cost(12, 2) } as const
  type Named = keyof typeof moves
  const ways = (wanted: readonly Named[]) => {
    const { ends } = search<string, Named>(
      {
        start: 'here',
        helpers: [],
        aims: Object.keys(moves) as readonly Named[],
        idOf: (move) => move,
        endOf: () => 'there',
        allows: () => true,
        apply: (_, move) => ({ state: 'there', cost: moves[move] }),
        nameOf: (state) => state,
        covers: () => true,
        prefers: ([move]) => move !== undefined && wanted.includes(move),
      },
      { most: 100 },
    )
    return (ends.get('there') ?? []).flatMap((one) => one.moves)
  }
  expect(ways([])).toEqual(['device'])
  expect(ways(['parts'])).toEqual(['device', 'parts'])
  expect(ways(['parts', 'round'])).toEqual(['device', 'parts'])
  expect(ways(['device'])).toEqual(['device'])
})
