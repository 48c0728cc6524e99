/** Where a job stands, from what is known of it: the plan as it would be now, what changed, the stages. */
import type { Change, JobFacts, Plan, StageStanding } from '@plain-slate/core'
import {
  basisOf,
  changesIn,
  askedFacts,
  openFacts,
  routeAlong,
  routeName,
  standingsOf,
  stepAt,
} from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import { bareplan, planDigest } from '../plans/plan.ts'
import { stateAt } from '../plans/roads.ts'
import type { ProvenPackage } from '../shelf/shelf.ts'
import type { JobAt } from './job-at.ts'
import { afterOf } from './after.ts'
import { onceOf } from './kept.ts'
import { lighterOf } from './lighter.ts'
import { preparedOf } from './prepared.ts'
import { isOverruled, isPublished, isWhole, routePackages } from './packages.ts'
import { readyOf } from './ready.ts'
import { asksRow } from './wanted.ts'

/** The bare plan of the picked route as it would be now; undefined: none can be made. */
export const planNow = onceOf(({ found, picked, run }): Plan | undefined => {
  if (found === undefined || picked === undefined || run !== undefined) return undefined
  const made = bareplan(found, picked.name)
  return made.ok ? made.value.plan : undefined
})

/** What a plan rests on now. */
export const basisNow = ({ found }: JobAt, packages: readonly string[]) =>
  found === undefined ? {} : basisOf(found.at, found.mode, packages)

/** What changed since the plan was taken so that it no longer holds; undefined: it holds, or there is none. */
export const changesSince = onceOf((job): readonly Change[] | undefined => {
  const { taken, found, run } = job
  if (taken === undefined || run !== undefined) return undefined
  const exact = job.picked?.exact !== false
  const route = exact ? nameOfTaken(taken) : taken.package
  const made = found === undefined ? undefined : bareplan(found, route)
  const same = made?.ok === true && planDigest(made.value.plan) === taken.digest
  const repicked = job.picked !== undefined && nameOf(job.picked) !== route
  if (same && !repicked) return undefined
  const before = { ...taken.basis, route }
  const ids = taken.made.plan.packages.map(({ key }) => key)
  const now = { ...basisNow(job, ids), route: job.picked === undefined ? '' : nameOf(job.picked) }
  return changesIn(before, now)
})

/** By what a route was picked: its own name, or that of its package. */
const nameOf = ({ exact, name, aim }: NonNullable<JobAt['picked']>): string =>
  exact ? name : aim.key

/** What the route of a taken plan is called; one that was taken before routes had names, by its package. */
const nameOfTaken = ({ made, package: key }: NonNullable<JobAt['taken']>): string =>
  (made.plan.moves as typeof made.plan.moves | undefined) === undefined
    ? key
    : routeName(made.plan.moves)

/** Every stage as it stands. */
export async function standingOf(
  workshop: Workshop,
  job: JobAt,
): Promise<readonly StageStanding[]> {
  const { taken, run } = job
  const changes = changesSince(job)
  const shown = taken?.shown
  const signed = await readyOf(workshop, job, changes !== undefined)
  const holds = [
    ...signed.checks.map((one) => one.holds),
    ...signed.signed.map((one) => one.signed),
  ]
  const after = afterOf(job)
  const facts: JobFacts = {
    closed: job.slip.state === 'closed',
    things: job.things,
    lines: job.lines,
    asksRow: asksRow(job),
    lighter: lighterOf(job),
    known: job.family === undefined ? undefined : knownOf(job),
    route: routeOf(job),
    ...packagesOf(job),
    written: writtenOf(job),
    plan:
      shown === undefined
        ? undefined
        : {
            steps: shown.steps.length,
            low: shown.time.low,
            high: shown.time.high,
            stale: changes !== undefined,
          },
    ready: { open: holds.filter((one) => !one).length, all: holds.length },
    run: run === undefined ? undefined : runOf(run),
    worse: after.worse,
    decided: after.decided,
    prepared: preparedOf(job),
  }
  return standingsOf(facts)
}

/** Once a run has begun, what was read before it is history, and was known then. */
function knownOf({ identity, run, ...job }: JobAt): NonNullable<JobFacts['known']> {
  const family = job.family ?? { facts: {}, modes: [] }
  const open = openFacts(family, identity, job)
  const unread = run === undefined ? open : open.filter((fact) => identity[fact].kind !== 'stale')
  return { settled: askedFacts(family, job).length - unread.length, open }
}

/** The picked route with its verdict now; once a run has begun, as it was taken. */
const routeOf = onceOf(({ picked, found, run, taken }): JobFacts['route'] => {
  if (run !== undefined && taken !== undefined)
    return { title: taken.shown.title, verdict: taken.shown.verdict }
  if (picked === undefined) return undefined
  const { title } = picked.aim.manifest
  const route = found === undefined ? undefined : routeAlong(stateAt(found), picked.moves)
  return { title, verdict: route?.verdict ?? 'cannot-tell' }
})

type PackageFacts = Pick<JobFacts, 'packages' | 'unproven' | 'unpublished' | 'overruled'>
/** The route's packages as Proof judges them; once a run has begun, those it writes, as they were allowed. */
function packagesOf(job: JobAt): PackageFacts {
  if (job.run !== undefined) {
    const { packages: written } = job.run.plan
    const overruled = written.filter(({ key }) => isOverruled(job, key))
    return {
      packages: written.length,
      unproven: [],
      unpublished: overruled.map(({ manifest }) => manifest.title),
      overruled: overruled.length > 0,
    }
  }
  const packages = routePackages(job)
  const unpublished = packages.filter((one) => !isPublished(one))
  return {
    packages: packages.length,
    unproven: titles(packages.filter((one) => !isWhole(one))),
    unpublished: titles(unpublished),
    overruled: unpublished.every(({ key }) => isOverruled(job, key)),
  }
}

const titles = (packages: readonly ProvenPackage[]): readonly string[] =>
  packages.map(({ manifest }) => manifest.title)

/** How many images would be written, of how many; `read`: whether the device's own digests were asked. */
function writtenOf(job: JobAt): JobFacts['written'] {
  const { found, run, taken } = job
  const decided =
    run !== undefined
      ? taken?.shown.writes
      : planNow(job)?.packages.flatMap(({ decisions }) => decisions)
  if (decided === undefined) return undefined
  const images = decided.filter(({ write }) => write).length
  return { images, of: decided.length, read: (found?.at.evidence.size ?? 0) > 0 }
}

/** A run by its step: `wanted` is under way too, since somebody is to drive it. */
const runOf = (run: NonNullable<JobAt['run']>): JobFacts['run'] => {
  const next = run.shown?.next ?? 0
  const step = stepAt(run.steps, next)
  const state = run.state === 'ended' ? 'ended' : run.state === 'stopped' ? 'stopped' : 'under-way'
  return { state, step: step?.number ?? 1, steps: run.steps.length }
}
