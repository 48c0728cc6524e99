/** Routes of a job: takeable candidates planned and rehearsed, and every other package with its reasons. */
import type { RouteShown } from '@plain-slate/api'
import type { AnswerOf, Contract } from '@plain-slate/api'
import type { CutClass } from '@plain-slate/core'
import {
  CUT_CLASSES,
  candidates,
  isTakeable,
  judge,
  orderBuilds,
  readBuild,
  ruler,
  settled,
} from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import type { Planned } from '../plans/plan.ts'
import { candidateOf, figuresOf, planOn } from '../plans/plan.ts'
import type { AtPort } from '../devices/case.ts'
import { shelvedOf } from '../shelf/shelf.ts'
import type { JobAt } from './job-at.ts'

/**
 * Takeable packages are planned and rehearsed, one after the other in the thread beside; every other package
 * of the family keeps its reasons, so that nothing is left out in silence. A package that fits and of which
 * no plan can be made is told with why.
 */
export async function routesOf(
  workshop: Workshop,
  { found, picked, shelf, identity }: JobAt,
): Promise<AnswerOf<Contract['jobRoutes']>> {
  const model = settled(identity, 'model')
  const names = shelf.filter(({ manifest }) =>
    manifest.targets.some((target) => target.model === model),
  )
  const counts = {
    known: shelf.length,
    naming: names.length,
    picked: picked?.key ?? null,
  }
  if (found === undefined) return { routes: [], left: [], ...counts }
  const own = await figuresOf(workshop.db, found.family.id)
  const judged = candidates(found.at)
  const none = new Map<string, string>()
  const takeable = judged.filter(({ verdict }) => isTakeable(verdict))
  const routes: RouteShown[] = []
  for (const { shelved } of takeable) {
    const planned = await planOn(found, { package: shelved.key, port: '' }, own)
    if (planned.ok) routes.push(routeOf(found, planned.value))
    else none.set(shelved.key, String(planned.refusal.facts?.['why'] ?? ''))
  }
  const taken = new Set(routes.map((one) => one.package))
  const rest = judged.filter(({ shelved }) => !taken.has(shelved.key))
  const others = found.shelf
    .map(shelvedOf)
    .filter(({ key }) => !judged.some(({ shelved }) => shelved.key === key))
    .map((shelved) => judge({ ...found.at, shelved }))
  return {
    routes,
    left: [...rest, ...others].map((one) => ({
      ...candidateOf(one),
      kind: one.shelved.manifest.kind,
      none: none.get(one.shelved.key) ?? null,
    })),
    ...counts,
  }
}

/** A plan as a row of the list: its worst moment is the gravest class of any step, with the seconds of it. */
function routeOf(found: AtPort, { plan, shown }: Planned): RouteShown {
  const aim = plan.packages.at(-1)?.manifest
  const gravity = (one: CutClass) => CUT_CLASSES.indexOf(one)
  const leaves = shown.steps.reduce<CutClass>(
    (worst, step) => (gravity(step.worst) > gravity(worst) ? step.worst : worst),
    'unaffected',
  )
  return {
    package: shown.package,
    title: shown.title,
    build: aim?.build ?? '',
    verdict: shown.verdict,
    findings: shown.findings,
    first: plan.packages.slice(0, -1).map(({ manifest }) => manifest.title),
    time: shown.time,
    fates: shown.fates,
    worst: { leaves, seconds: shown.atRisk[leaves] ?? 0 },
    wayBack: shown.wayBack,
    ruler: rulerOf(found, aim?.build ?? ''),
    patchDate: aim?.patchDate ?? '',
  }
}

/** The build that is on it against another one, segment by segment. */
function rulerOf({ family, at }: AtPort, to: string): RouteShown['ruler'] {
  const here = readBuild(family.build, String(settled(at.identity, 'build') ?? ''))
  const there = readBuild(family.build, to)
  if (!here.ok || !there.ok) return null
  return {
    parts: ruler(family.build, here.value, there.value).map((part) => ({ ...part })),
    order: orderBuilds(family.build, there.value, here.value),
  }
}
