/** Routes from where a device stands, as plain data: what a thread gives another. */
import type {
  Blocked,
  DeviceState,
  Fate,
  Finding,
  Limits,
  Miss,
  Move,
  Verdict,
} from '@plain-slate/core'
import { backOf, fateOfCost, obstaclesOf, packsOf, routesTo } from '@plain-slate/core'

export type Road = {
  readonly name: string
  readonly moves: readonly Move[]
  readonly verdict: Verdict
  readonly findings: readonly Finding[]
  readonly misses: readonly Miss[]
  /** At the longest, move by move. */
  readonly minutes: number
  readonly data: Fate
  /** Packages of the way back from its end, what becomes of the data on it, whether some must be fetched. */
  readonly back:
    { readonly packs: readonly string[]; readonly data: Fate; readonly fetch: boolean } | undefined
}
/** As many as a person looks through; the rest is counted. */
const ROUTES_MOST = 40

export type Roads = {
  readonly routes: readonly Road[]
  /** Routes that are open and not listed. */
  readonly more: number
  readonly limit: boolean
  readonly blocked: readonly (Omit<Blocked, 'aim'> & { readonly aim: string })[]
}

export function searchRoads(start: DeviceState, limits: Limits): Roads {
  const { routes, limit } = routesTo({ start, limits })
  return {
    limit,
    more: Math.max(0, routes.length - ROUTES_MOST),
    routes: routes.slice(0, ROUTES_MOST).map((route) => {
      const { name, moves, verdict, findings, misses, cost } = route
      const back = backOf(start, route)
      return {
        name,
        moves,
        verdict,
        findings,
        misses,
        minutes: cost.minutes,
        data: fateOfCost(start.at, cost),
        back: back && {
          packs: packsOf(back.route.moves).map(({ pack }) => pack),
          data: back.data,
          fetch: back.fetch,
        },
      }
    }),
    blocked: routes.some(({ misses }) => misses.length === 0)
      ? []
      : obstaclesOf(start, routes, limits)
          /* Where nothing stands in the way that anybody could lift, no road leads there at all: it is told with what is left out. */
          .filter(({ obstacles }) => obstacles.length > 0)
          .map(({ aim, ...one }) => ({ ...one, aim: aim.key })),
  }
}
