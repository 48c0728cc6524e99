/**
 * A plan as it would be if the house had decided otherwise, question by question. Reads where a device stands, the route
 * in hand and its plan; gives the answers that would make another plan of it, each with that plan. An answer that moves
 * nothing is none.
 */
import type { Json } from '../canon/canon.ts'
import { canonical } from '../canon/canon.ts'
import type { Shelved } from '../firmware/manifest.ts'
import type { Move } from '../plan/moves.ts'
import { routeName } from '../plan/moves.ts'
import type { Plan } from '../plan/plan.ts'
import { planOf } from '../plan/plan.ts'
import type { DeviceState } from '../plan/state.ts'
import type { SchoolQuestion } from '../terms/schools.ts'
import { SCHOOLS, SCHOOL_QUESTIONS } from '../terms/schools.ts'
import { bestMoves } from './make-plan.ts'

export type Otherwise = {
  readonly question: SchoolQuestion
  readonly answer: string
  /** What the route is called then. */
  readonly route: string
  readonly plan: Plan
}

/** `moves`: the route in hand. `aim`: the package it ends in. */
export function otherwise(
  start: DeviceState,
  moves: readonly Move[],
  aim: Shelved,
): readonly Otherwise[] {
  const now = planned(start, moves)
  if (now === undefined) return []
  const best = routeName(bestMoves(start, aim))
  return SCHOOL_QUESTIONS.flatMap((question) =>
    SCHOOLS[question]
      .filter((answer) => answer !== start.at.house[question])
      .flatMap((answer): readonly Otherwise[] => {
        const house = { ...start.at.house, [question]: answer }
        const supposed = { ...start, at: { ...start.at, house } }
        const plan = planned(supposed, moves)
        if (plan !== undefined && !isSame(plan, now))
          return [{ question, answer, route: routeName(moves), plan }]
        const others = bestMoves(supposed, aim)
        if (routeName(others) === best) return []
        const other = planned(supposed, others)
        return other === undefined || isSame(other, now)
          ? []
          : [{ question, answer, route: routeName(others), plan: other }]
      }),
  )
}

function planned(start: DeviceState, moves: readonly Move[]): Plan | undefined {
  const made = planOf(start, moves)
  return made.ok ? made.value : undefined
}

const isSame = (a: Plan, b: Plan): boolean =>
  canonical(a as unknown as Json) === canonical(b as unknown as Json)
