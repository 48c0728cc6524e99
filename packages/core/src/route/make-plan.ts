/** The plan of the best route to one package. Reads a judged case and where its device is; gives steps, or why not. */
import type { Shelved } from '../firmware/manifest.ts'
import { judge } from '../match/judge.ts'
import type { Case } from '../match/rule.ts'
import type { PlanWay } from '../plan/install.ts'
import type { Move } from '../plan/moves.ts'
import type { NoPlan, Plan } from '../plan/plan.ts'
import { needsFirst, planOf } from '../plan/plan.ts'
import type { DeviceState } from '../plan/state.ts'
import type { Result } from '../result/result.ts'
import { MOVE_ACTS } from '../terms/device.ts'
import type { Remedy } from '../verdict/verdict.ts'
import { isTakeable } from '../verdict/verdict.ts'
import { routesTo } from './route.ts'
import { waysOf } from './world.ts'

export type PlanAsk = {
  readonly at: Case
  readonly mode: DeviceState['mode']
  readonly permission: boolean
  /** How the package gets there; left out: as the house puts packages on, where it can. */
  readonly way?: PlanWay
}

/** The plan of the best route to one package, or why there is none. */
export function makePlan({ at, mode, permission, way }: PlanAsk): Result<Plan, NoPlan> {
  const { shelved, way: _, ...unheld } = at
  const others = at.shelf.filter(({ key }) => key !== shelved.key)
  const start: DeviceState = { at: { ...unheld, shelf: [...others, shelved] }, mode, permission }
  const isWay = way === undefined ? {} : { isWay: (one: PlanWay) => one === way }
  return planOf(start, bestMoves(start, shelved, isWay))
}

/** Moves of the best route to a package; where there is none those of which the reason is told. */
export function bestMoves(
  start: DeviceState,
  shelved: Shelved,
  isWay: { readonly isWay?: (way: PlanWay) => boolean } = {},
): readonly Move[] {
  const [best] = routesTo({ start, aims: [shelved.key], ...isWay }).routes
  return best?.moves ?? nearestMoves(start, shelved, isWay.isWay)
}

/** What a remedy says that comes first. */
function beforehand({ first, act }: Extract<Remedy, { kind: 'along' }>): readonly Move[] {
  const does = MOVE_ACTS.find((one) => one === act)
  return [
    ...(does === undefined ? [] : [{ act: does }]),
    ...(first === undefined ? [] : [{ pack: first, way: 'images' } as const]),
  ]
}

/** What would have to be laid where there is no route: why it cannot be is told of it. */
function nearestMoves(
  { at }: DeviceState,
  shelved: Shelved,
  isWay: (way: PlanWay) => boolean = () => true,
): readonly Move[] {
  const usual = waysOf(at, shelved).find(({ way }) => isWay(way))
  const { verdict, findings } = judge({ ...at, shelved })
  const first = isTakeable(verdict) ? findings.filter(needsFirst) : []
  return [
    ...first.flatMap(({ remedy }): readonly Move[] =>
      remedy?.kind === 'along' ? beforehand(remedy) : [],
    ),
    usual ?? { pack: shelved.key, way: 'images' },
  ]
}
