/**
 * The way back of a route: from where it ends, with what is known, to the build and the data form that were there
 * before. Judged like any route. Reads a route and where it began; gives the best way back, or nothing.
 */
import { settled } from '../device/identity.ts'
import { fullOf } from '../match/shelf-index.ts'
import type { Unheld } from '../match/rule.ts'
import type { Fate } from '../match/rules/data-fate.ts'
import { worstFate } from '../match/rules/data-fate.ts'
import type { DeviceState } from '../plan/state.ts'
import type { Cost } from './cost.ts'
import type { Route } from './route.ts'
import { routesTo } from './route.ts'

/** `data`: what becomes of the customer's on that way. `fetch`: some of it must be fetched before. */
export type Back = { readonly route: Route; readonly data: Fate; readonly fetch: boolean }

const FATES_BY_COST: readonly Fate[] = ['kept', 'unreadable', 'wiped']

/** What a cost of the data comes to; of things that must survive and have no place no route promises anything. */
export const fateOfCost = ({ keepData, placeless }: Unheld, { data }: Cost): Fate =>
  worstFate([
    FATES_BY_COST[data] ?? 'wiped',
    ...(keepData && placeless.length > 0 ? (['unpromised'] as const) : []),
  ])

/** Undefined: nobody knows what was on it, or no way leads back there. */
export function backOf({ at: was }: DeviceState, { end }: Pick<Route, 'end'>): Back | undefined {
  const build = settled(was.identity, 'build')
  if (build === undefined) return undefined
  const aims = fullOf(was.shelf, build).map(({ key }) => key)
  for (const keepData of [true, false]) {
    const start: DeviceState = { ...end, at: { ...end.at, intent: 'restore', keepData } }
    const [route] = routesTo({ start, aims }).routes
    if (route !== undefined)
      return {
        route,
        data: fateOfCost({ ...end.at, keepData: false }, route.cost),
        fetch: route.cost.fetch > 0,
      }
  }
  return undefined
}
