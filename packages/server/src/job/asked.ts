/** One device, however it is named: at a port, of a slip, by readings alone; and what is judged of it. */
import type { AnswerOf, BodyOf, Contract, Judged, PlanShown } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import { aimOf, aroundAim, candidates, ok, refuse } from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import { dayOf } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import type { AtPort } from '../devices/case.ts'
import { caseAt, caseOfReadings, knowing, wantedAtPort } from '../devices/case.ts'
import { candidateOf, figuresOf, planOn } from '../plans/plan.ts'
import { roadsOf } from '../plans/roads.ts'
import type { Road } from '../plans/search-roads.ts'
import { findingOf } from '../plans/shown.ts'
import { namedOnShelf } from '../shelf/shelf.ts'
import { loadJob } from './load.ts'
import { namesIn } from './picked.ts'
import { blockedShown, titleOf } from './routes.ts'

type Asked = BodyOf<Contract['judge']>

/** On a slip the wish is the slip's own. */
async function caseAsked(workshop: Workshop, asked: Asked): Promise<Result<AtPort, Refusal>> {
  if (asked.slip !== undefined) {
    const job = await loadJob(workshop, asked.slip)
    if (!job.ok) return job
    const { found } = job.value
    return found === undefined
      ? refuse({ code: 'slip.no-plan', facts: { number: asked.slip } })
      : ok(found)
  }
  const wanted = wantedAtPort(asked, await dayOf(workshop))
  return asked.readings === undefined
    ? caseAt(workshop, asked.port ?? '', wanted)
    : caseOfReadings(workshop, asked.readings, wanted)
}

/** Every package alone, every route, and what would open one where none is. */
export async function judgeAsked(
  workshop: Workshop,
  asked: Asked,
): Promise<Result<AnswerOf<Contract['judge']>, Refusal>> {
  const found = await caseAsked(workshop, asked)
  if (!found.ok) return found
  const { routes, more, blocked, limit } = await roadsOf(found.value)
  return ok({
    candidates: candidates(found.value.at).map(candidateOf),
    routes: routes.map((one) => roadShown(found.value, one)),
    open: more,
    blocked: blocked.map((one) => blockedShown(found.value, one)),
    limit,
  })
}

function roadShown(found: AtPort, road: Road): Judged['routes'][number] {
  const { name, moves, verdict, findings, misses, minutes, data } = road
  const last = aimOf(moves)
  const title = titleOf(found, last?.pack ?? '') ?? ''
  return {
    route: name,
    package: last?.pack ?? '',
    title,
    ...aroundAim(moves, (pack) => titleOf(found, pack)),
    way: last?.way ?? 'images',
    verdict,
    findings: findings.map(findingOf),
    misses: [...misses],
    minutes,
    data,
  }
}

/** A plan for one device, rehearsed, or why there is none. */
export async function planAsked(
  workshop: Workshop,
  { package: name, ...asked }: BodyOf<Contract['plan']>,
): Promise<Result<PlanShown, Refusal>> {
  const found = await caseAsked(workshop, asked)
  if (!found.ok) return found
  const own = await figuresOf(workshop.db, found.value.family.id)
  const at = knowing(found.value, await namedOnShelf(workshop.db, namesIn(name)))
  const planned = await planOn(at, { package: name, port: asked.port ?? '' }, own)
  return planned.ok ? ok(planned.value.shown) : planned
}
