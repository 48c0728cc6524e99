/**
 * Every route that is worth taking from where a device stands to a package of the shelf, with what stands beside each:
 * findings, marks, cost, the state it ends in. Reads a state and the aims; gives routes in the order in which a
 * house would take them.
 */
import type { Shelved } from '../firmware/manifest.ts'
import type { Judgement } from '../match/judge.ts'
import { inOrder, isAim, judge } from '../match/judge.ts'
import type { OwnFigures } from '../pace/pace.ts'
import type { PlanWay } from '../plan/install.ts'
import type { Move } from '../plan/moves.ts'
import { isPack, routeName } from '../plan/moves.ts'
import { heldAgainst, needsFirst } from '../plan/plan.ts'
import type { DeviceState } from '../plan/state.ts'
import type { Finding, Verdict } from '../verdict/verdict.ts'
import { gravestFirst, worst } from '../verdict/verdict.ts'
import type { Cost } from './cost.ts'
import { NO_COST, costOfBoth, costOrder } from './cost.ts'
import type { Found, Limits } from './search.ts'
import { search } from './search.ts'
import type { Miss } from './wish.ts'
import { missesOf, weightOf } from './wish.ts'
import { applied, isOfSchool, judgedAt, worldOf } from './world.ts'

export type Route = {
  readonly name: string
  readonly moves: readonly Move[]
  /** The package it ends in. */
  readonly shelved: Shelved
  readonly verdict: Verdict
  /** Of every move where it is made, gravest first; and what an earlier move lifts, with its marks. */
  readonly findings: readonly Finding[]
  readonly cost: Cost
  /** What it misses of the wish, the gravest first. */
  readonly misses: readonly Miss[]
  readonly end: DeviceState
}

export type Routes = {
  readonly routes: readonly Route[]
  /** As many labels were looked at as may be: there may be more routes. */
  readonly limit: boolean
}

export type RouteAsk = {
  readonly start: DeviceState
  /** Keys of the packages that may be the aim; left out: every one that could be. */
  readonly aims?: readonly string[]
  readonly isWay?: (way: PlanWay) => boolean
  readonly own?: OwnFigures
  readonly limits?: Limits
}

/** All routes, by aim in the order that the intent wants, and of one aim as the house puts packages on. */
export function routesTo({ start, aims, isWay, own, limits }: RouteAsk): Routes {
  const { at } = start
  const isOne = (shelved: Shelved) => aims?.includes(shelved.key) ?? isAim(at, shelved)
  const world = worldOf({
    start,
    isAim: isOne,
    ...(isWay === undefined ? {} : { isWay }),
    ...(own === undefined ? {} : { own }),
  })
  const { ends, limit } = search(world, limits)
  const routes = [...ends].flatMap(([, front]) =>
    front
      .filter(doesAnything)
      .sort((a, b) => houseOrder(start, a, b))
      .map((found) => routeOf(start, found)),
  )
  const ties = (a: Route, b: Route) => houseOrder(start, a, b)
  return { routes: nearestFirst(inOrder(at, routes, ties)), limit }
}

/** A package of which all is on it already is one to close the lock over, and nothing by itself. */
const doesAnything = ({ moves, end }: Found<DeviceState, Move>): boolean =>
  end.onto?.wrote !== false || moves.some((move) => !isPack(move))

/** What comes to the wish before what misses some of it; equals stay as they stand. */
function nearestFirst(routes: readonly Route[]): readonly Route[] {
  return [...routes].sort((a, b) => weightOf(a.misses) - weightOf(b.misses))
}

/** The school of the house first: by parts over the cable, or installed by the device; then what costs less. */
function houseOrder(
  { at }: DeviceState,
  a: Pick<Found<DeviceState, Move>, 'moves' | 'cost'>,
  b: Pick<Found<DeviceState, Move>, 'moves' | 'cost'>,
): number {
  const rank = ({ moves }: Pick<Found<DeviceState, Move>, 'moves'>) =>
    isOfSchool(at.house, moves) ? 0 : 1
  return rank(a) - rank(b) || costOrder(a.cost, b.cost)
}

function routeOf(
  start: DeviceState,
  { moves, cost, end, before }: Found<DeviceState, Move>,
): Route {
  const last = moves.findLastIndex(isPack)
  const judged = moves.flatMap(
    (move, index): Judgement | readonly Judgement[] =>
      judgedAt(before[index] ?? start, move, index === last) ?? [],
  )
  const aim = judged[last]
  if (aim === undefined) throw new RangeError('a route without a package')
  const findings = gravestFirst(
    unique([
      ...aim.findings,
      ...judged.filter((one) => one !== aim).flatMap(({ findings: own }) => own.filter(isTold)),
      ...liftedOn(before, moves),
    ]),
  )
  return {
    name: routeName(moves),
    moves,
    shelved: aim.shelved,
    verdict: worst(findings.map(({ verdict }) => verdict)),
    findings,
    cost,
    misses: missesOf(start, { shelved: aim.shelved, cost, end }),
    end,
  }
}

/** A route of given moves, each judged where it is made, whether it may be made there or not. */
export function routeAlong(start: DeviceState, moves: readonly Move[]): Route | undefined {
  const before: DeviceState[] = []
  let end = start
  let cost = NO_COST
  const last = moves.findLastIndex(isPack)
  for (const [index, move] of moves.entries()) {
    if (heldAgainst(end, move, true) === undefined) return undefined
    before.push(end)
    const done = applied(end, move, { last: index === last, own: undefined })
    cost = done === undefined ? cost : costOfBoth(cost, done.cost)
    end = done?.state ?? end
  }
  return last < 0 ? undefined : routeOf(start, { moves, cost, end, before })
}

const isTold = ({ verdict, marks }: Finding): boolean => verdict !== 'fits' || marks.length > 0

/** What the moves before lifted of what a later one asks: it fits then, with its marks. */
function liftedOn(before: readonly DeviceState[], moves: readonly Move[]): readonly Finding[] {
  const last = moves.findLastIndex(isPack)
  return moves.slice(1).flatMap((move, index) => {
    const earlier = before[index]
    const held = earlier && heldAgainst(earlier, move, index + 1 === last)
    if (held === undefined) return []
    return judge(held)
      .findings.filter(needsFirst)
      .map((one): Finding => ({ ...one, verdict: 'fits' }))
  })
}

/** Each finding once, however many moves bring it. */
const unique = (findings: readonly Finding[]): readonly Finding[] => [
  ...new Map(
    findings.map((one) => [JSON.stringify([one.rule, one.code, one.facts]), one]),
  ).values(),
]
