/** Routes of a job: every one that is worth taking, planned at once and rehearsed in the background. */
import type { BlockedShown, RouteShown } from '@plain-slate/api'
import type { AnswerOf, Contract } from '@plain-slate/api'
import type { CutClass, Distance, OwnFigures, Plan } from '@plain-slate/core'
import {
  CUT_CLASSES,
  aimOf,
  aroundAim,
  atRisk,
  distanceOf,
  fold,
  keepsPromise,
  planOf,
  readBuild,
  ruler,
  settled,
  whyCannot,
} from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import type { AtPort } from '../devices/case.ts'
import { fatesShown, stepsOf } from '../plans/made.ts'
import { failsAt, figuresOf, planDigest } from '../plans/plan.ts'
import type { Rehearsed } from '../plans/rehearsals.ts'
import { rehearseAside } from '../plans/rehearsals.ts'
import { roadsOf, stateAt } from '../plans/roads.ts'
import type { Road, Roads } from '../plans/search-roads.ts'
import { findingOf } from '../plans/shown.ts'
import { tell } from '../tables/news.ts'
import { countPackages } from '../tables/packages.ts'
import type { JobAt } from './job-at.ts'
import { leftOf } from './left.ts'

type Routes = AnswerOf<Contract['jobRoutes']>

/**
 * The routes, what would open one where none is, and the packages that are left out with their first reason, so that
 * nothing is left out in silence. A rehearsal that ends is told as news of the slip.
 */
export async function routesOf(workshop: Workshop, job: JobAt): Promise<Routes> {
  const { found, picked, identity, slip } = job
  const model = settled(identity, 'model')
  const { all, family, naming } = await countPackages(workshop.db, {
    family: found?.family.id,
    model: model === undefined ? undefined : String(model),
  })
  const counts = {
    version: slip.version,
    known: all,
    naming,
    foreign: all - family,
    picked: picked?.name ?? null,
  }
  if (found === undefined)
    return {
      routes: [],
      open: 0,
      limit: false,
      blocked: [],
      cannot: null,
      left: [],
      more: 0,
      ...counts,
    }
  const own = await figuresOf(workshop.db, found.family.id)
  const roads = await roadsOf(found)
  const news = () =>
    void tell(workshop.db, 'slip', slip.number, slip.version).catch(() => undefined)
  const routes = roads.routes.flatMap(
    (road) => routeOf(found, road, { own, slip: slip.number, news }) ?? [],
  )
  return {
    routes,
    open: roads.more,
    limit: roads.limit,
    blocked: roads.blocked.map((one) => blockedShown(found, one)),
    cannot: cannotShown(found, roads),
    ...(await leftOf(workshop.db, found, routes, family)),
    ...counts,
  }
}

function cannotShown(found: AtPort, { routes }: Roads): Routes['cannot'] {
  const cannot = whyCannot(stateAt(found), routes)
  if (cannot === undefined) return null
  const { aim, finding } = cannot
  return {
    title: aim?.manifest.title ?? null,
    finding: finding === undefined ? null : findingOf(finding),
  }
}

type About = { readonly own: OwnFigures; readonly slip: string; readonly news: () => void }

/** A route as a row of the list; undefined: no plan comes of it after all, and its package is left out. */
function routeOf(found: AtPort, road: Road, { own, slip, news }: About): RouteShown | undefined {
  const made = planOf(stateAt(found), road.moves)
  const aim = made.ok ? made.value.packages.at(-1) : undefined
  const last = aimOf(road.moves)
  if (!made.ok || aim === undefined || last === undefined) return undefined
  const plan = made.value
  const digest = planDigest(plan)
  const rehearsal = rehearseAside(found, plan, { digest, who: slip, then: news })
  const folds = fold(plan, found.at, own)
  const { key, manifest } = aim
  return {
    route: road.name,
    way: last.way,
    package: key,
    title: manifest.title,
    build: manifest.build,
    verdict: road.verdict,
    findings: road.findings.map(findingOf),
    ...aroundAim(road.moves, (pack) => titleOf(found, pack)),
    idle: plan.packages.every(({ decisions }) => decisions.every(({ write }) => !write)),
    time: { ...folds.time },
    hands: { ...folds.hands },
    fates: fatesShown(folds.fates),
    ...rehearsedAs(found, plan, { rehearsal, fates: folds.fates, own }),
    wayBack: titleOf(found, plan.wayBack ?? '') ?? null,
    back:
      road.back === undefined
        ? null
        : {
            titles: road.back.packs.map((pack) => titleOf(found, pack) ?? pack),
            data: road.back.data,
            fetch: road.back.fetch,
          },
    misses: [...road.misses],
    ruler: rulerOf(found, manifest.build),
    patchDate: manifest.patchDate,
  }
}

export const titleOf = ({ known }: AtPort, key: string): string | undefined =>
  known.find((one) => one.key === key)?.manifest.title

type Rehearsal = {
  readonly rehearsal: Rehearsed | undefined
  readonly fates: ReturnType<typeof fold>['fates']
  readonly own: OwnFigures
}

/** What its rehearsal shows: the gravest class of any step with the seconds of it, and where it fails. */
function rehearsedAs(
  { family }: AtPort,
  plan: Plan,
  { rehearsal, fates, own }: Rehearsal,
): Pick<RouteShown, 'rehearsed' | 'worst' | 'fails'> {
  if (rehearsal === undefined) return { rehearsed: false, worst: null, fails: null }
  const { worst, end, says, stopped } = rehearsal
  const steps = stepsOf({ plan, worst, own }, family)
  const reaches = keepsPromise(plan, fates, end, says)
  return {
    rehearsed: true,
    worst: worstShown(steps),
    fails: reaches ? null : failsAt(plan, stopped),
  }
}

/** The gravest class that a cut leaves, and for how many seconds at the longest. */
export function worstShown(steps: ReturnType<typeof stepsOf>): NonNullable<RouteShown['worst']> {
  const gravity = (one: CutClass) => CUT_CLASSES.indexOf(one)
  const leaves = steps.reduce<CutClass>(
    (gravest, step) => (gravity(step.worst) > gravity(gravest) ? step.worst : gravest),
    'unaffected',
  )
  return { leaves, seconds: atRisk(steps)[leaves] ?? 0 }
}

/** What would open a way, package by package. */
export const blockedShown = (
  found: AtPort,
  { aim, moves, obstacles }: Roads['blocked'][number],
): BlockedShown => ({
  package: aim,
  title: titleOf(found, aim) ?? aim,
  ...aroundAim(moves, (pack) => titleOf(found, pack)),
  obstacles: obstacles.map(({ title, pack, finding }) => ({
    title,
    package: pack,
    finding: findingOf(finding),
  })),
})

const farOf = ({ order, ...far }: Distance) => ({ order, far })

/** The build that is on it against another one, segment by segment. */
function rulerOf({ family, at }: AtPort, to: string): RouteShown['ruler'] {
  const here = readBuild(family.build, String(settled(at.identity, 'build') ?? ''))
  const there = readBuild(family.build, to)
  if (!here.ok || !there.ok) return null
  return {
    parts: ruler(family.build, here.value, there.value).map((part) => ({ ...part })),
    ...farOf(distanceOf(family.build, here.value, there.value)),
  }
}
