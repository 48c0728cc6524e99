/**
 * What a route is made of: packages, each put on in one way, and what is done to the device without one. Reads names;
 * gives moves with what they are called.
 */
import type { MoveAct } from '../terms/device.ts'
import { MOVE_ACTS } from '../terms/device.ts'
import type { PlanWay } from './install.ts'
import { PLAN_WAYS } from './install.ts'

export type PackMove = { readonly pack: string; readonly way: PlanWay }
export type ActMove = { readonly act: MoveAct }
export type Move = PackMove | ActMove

export const isPack = (move: Move): move is PackMove => 'pack' in move

/** The packages of moves, as they go on. */
export const packsOf = (moves: readonly Move[]): readonly PackMove[] => moves.filter(isPack)

/** The package that moves end in: what is done after it puts no other on. */
export const aimOf = (moves: readonly Move[]): PackMove | undefined => packsOf(moves).at(-1)

/** A move as it is said: a package by its title, or what is done. */
export type MoveSaid =
  | { readonly kind: 'package'; readonly title: string }
  | { readonly kind: 'act'; readonly act: MoveAct }

/** What comes before the package that moves end in, and what is done after it. */
export function aroundAim(
  moves: readonly Move[],
  titleOf: (pack: string) => string | undefined,
): { readonly first: MoveSaid[]; readonly then: MoveSaid[] } {
  const aim = moves.findLastIndex(isPack)
  const said = (move: Move): MoveSaid =>
    isPack(move)
      ? { kind: 'package', title: titleOf(move.pack) ?? move.pack }
      : { kind: 'act', act: move.act }
  return { first: moves.slice(0, aim).map(said), then: moves.slice(aim + 1).map(said) }
}

const BY = ' by '
const THEN = ' > '
const DO = 'do '

/** What a move is called: by its package, and by how that is put on; or by what is done. */
export const moveName = (move: Move): string =>
  isPack(move) ? `${move.pack}${BY}${move.way}` : `${DO}${move.act}`

/** What moves one after the other are called. */
export const routeName = (moves: readonly Move[]): string => moves.map(moveName).join(THEN)

/** The moves of a name; undefined: it is the name of no route, and may be one of a package. */
export function movesOf(name: string): readonly Move[] | undefined {
  const moves = name.split(THEN).flatMap((one): readonly Move[] => {
    const act = MOVE_ACTS.find((each) => one === `${DO}${each}`)
    if (act !== undefined) return [{ act }]
    const way = PLAN_WAYS.find((end) => one.endsWith(`${BY}${end}`))
    return way === undefined ? [] : [{ pack: one.slice(0, -(BY.length + way.length)), way }]
  })
  return moves.length === name.split(THEN).length && aimOf(moves) !== undefined ? moves : undefined
}
