/**
 * What a route is made of: packages, each put on in one way. Reads names; gives moves with what they are called.
 */
import type { PlanWay } from './install.ts'
import { PLAN_WAYS } from './install.ts'

export type Move = { readonly pack: string; readonly way: PlanWay }

const BY = ' by '
const THEN = ' > '

/** What a move is called: by its package, and by how that is put on. */
export const moveName = ({ pack, way }: Move): string => `${pack}${BY}${way}`

/** What moves one after the other are called. */
export const routeName = (moves: readonly Move[]): string => moves.map(moveName).join(THEN)

/** The moves of a name; undefined: it is the name of no route, and may be one of a package. */
export function movesOf(name: string): readonly Move[] | undefined {
  const moves = name.split(THEN).flatMap((one): readonly Move[] => {
    const way = PLAN_WAYS.find((end) => one.endsWith(`${BY}${end}`))
    return way === undefined ? [] : [{ pack: one.slice(0, -(BY.length + way.length)), way }]
  })
  return moves.length === name.split(THEN).length ? moves : undefined
}
