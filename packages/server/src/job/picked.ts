/** The route that was picked, from the line that says so: by its own name, or by that of the package it ends in. */
import { aimOf, isPack, movesOf, routeName } from '@plain-slate/core'
import type { AtPort } from '../devices/case.ts'
import { movesMeant } from '../plans/plan.ts'
import type { ProvenPackage } from '../shelf/shelf.ts'
import { packageMeant } from '../shelf/shelf.ts'
import type { Picked } from './job-at.ts'

/** The packages that an answer names. */
export const namesIn = (answer: string | undefined): readonly string[] =>
  answer === undefined
    ? []
    : (movesOf(answer)?.flatMap((move) => (isPack(move) ? [move.pack] : [])) ?? [answer])

/** Undefined: nothing was picked, or the shelf does not know it any more. */
export function pickedIn(
  found: AtPort | undefined,
  shelf: readonly ProvenPackage[],
  answer: string | undefined,
): Picked | undefined {
  if (answer === undefined) return undefined
  if (found !== undefined) {
    const meant = movesMeant(found, answer)
    const exact = movesOf(answer) !== undefined
    return meant.ok ? { ...meant.value, exact, name: routeName(meant.value.moves) } : undefined
  }
  const moves = movesOf(answer)
  const aim = packageMeant(shelf, (moves && aimOf(moves)?.pack) ?? answer)
  if (!aim.ok) return undefined
  const alone = moves ?? [{ pack: aim.value.key, way: 'images' as const }]
  const exact = moves !== undefined
  return { moves: alone, aim: aim.value, exact, name: routeName(alone) }
}
