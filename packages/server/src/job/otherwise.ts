/** A job's plan as it would be if the house had decided otherwise: made beside, rehearsed in the background. */
import type { AnswerOf, Contract, OtherwiseShown } from '@plain-slate/api'
import type { Otherwise } from '@plain-slate/core'
import { fold, keepsPromise } from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import type { AtPort } from '../devices/case.ts'
import { askBeside } from '../plans/beside.ts'
import { fatesShown, stepsOf } from '../plans/made.ts'
import { failsAt, figuresOf, planDigest } from '../plans/plan.ts'
import { rehearseAside } from '../plans/rehearsals.ts'
import { stateAt } from '../plans/roads.ts'
import { shelvedOf } from '../shelf/shelf.ts'
import { stepShown } from '../plans/shown.ts'
import { tell } from '../tables/news.ts'
import type { JobAt } from './job-at.ts'
import { worstShown } from './routes.ts'

/** Nothing once a run has begun: it follows the plan that was taken. */
export async function otherwiseOf(
  workshop: Workshop,
  { found, picked, run, slip }: JobAt,
): Promise<AnswerOf<Contract['jobOtherwise']>> {
  if (found === undefined || picked === undefined || run !== undefined) return { others: [] }
  const { moves, aim } = picked
  const others = await askBeside({
    kind: 'otherwise',
    start: stateAt(found),
    moves,
    aim: shelvedOf(aim),
  })
  const own = await figuresOf(workshop.db, found.family.id)
  const news = () =>
    void tell(workshop.db, 'slip', slip.number, slip.version).catch(() => undefined)
  return { others: others.map((one) => shown(one)) }

  function shown({ question, answer, route, plan }: Otherwise): OtherwiseShown {
    const { at, family } = found as AtPort
    const house = { ...at.house, [question]: answer }
    const supposed = { ...(found as AtPort), at: { ...at, house } }
    const folds = fold(plan, supposed.at, own)
    const digest = planDigest(plan)
    const aside = { digest, who: slip.number, then: news }
    const rehearsal = rehearseAside(supposed, plan, aside)
    const steps = stepsOf({ plan, worst: rehearsal?.worst ?? [], own }, family)
    const reaches = rehearsal && keepsPromise(plan, folds.fates, rehearsal.end, rehearsal.says)
    return {
      question,
      answer,
      route,
      time: { ...folds.time },
      hands: { ...folds.hands },
      needs: folds.needs,
      restarts: folds.restarts,
      fates: fatesShown(folds.fates),
      worst: rehearsal === undefined ? null : worstShown(steps),
      fails: reaches === false && rehearsal !== undefined ? failsAt(plan, rehearsal.stopped) : null,
      steps: steps.map(stepShown),
    }
  }
}
