/** Every route of the product in one object. */
import { agentRoutes } from './agent.ts'
import { benchRoutes } from './bench.ts'
import { bookRoutes } from './book.ts'
import { permitRoutes } from './permit.ts'
import { peopleRoutes } from './people.ts'
import type { Route } from './route.ts'
import { familyRoutes } from './families.ts'
import { houseRoutes } from './house.ts'
import { jobRoutes } from './job.ts'
import { runRoutes } from './runs.ts'
import { shelfRoutes } from './shelf.ts'
import { shopRoutes } from './shop.ts'
import { slipRoutes } from './slips.ts'

export const contract = {
  ...shopRoutes,
  ...peopleRoutes,
  ...slipRoutes,
  ...bookRoutes,
  ...shelfRoutes,
  ...benchRoutes,
  ...runRoutes,
  ...familyRoutes,
  ...houseRoutes,
  ...jobRoutes,
  ...permitRoutes,
  ...agentRoutes,
} as const
export type Contract = typeof contract
export type RouteName = keyof Contract

/** All routes with their names, in the order of the contract. */
export function everyRoute(): readonly (readonly [RouteName, Route])[] {
  return Object.entries(contract) as [RouteName, Route][]
}

/** The address of a route with its parameters and query; what is undefined or empty is left out. */
export function addressIn(
  path: string,
  params: Readonly<Record<string, string>>,
  query: object,
): string {
  const given = Object.entries(query).filter(([, value]) => value !== undefined && value !== '')
  const text = new URLSearchParams(given.map(([key, value]) => [key, String(value)])).toString()
  return text === '' ? fillPath(path, params) : `${fillPath(path, params)}?${text}`
}

/** Puts parameters into a path; each is encoded. */
function fillPath(path: string, params: Readonly<Record<string, string>>): string {
  return path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(params[name] ?? ''))
}
