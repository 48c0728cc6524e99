/** After the first start: everything that is worse than it went in, and the paper that says so. */
import type { AfterFacts, Fate, Levels, Paper, PaperRun, Worse } from '@plain-slate/core'
import {
  FLOOR_FACTS,
  curedBy,
  isDecided,
  msOf,
  paperOf,
  standingOf,
  stepAt,
  worseAfter,
  worseUnwritten,
  worstFate,
} from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import type { MadePlan } from '../plans/made.ts'
import { fatesShown } from '../plans/made.ts'
import { listPlans } from '../tables/job.ts'
import { listRunsOf } from '../tables/past-runs.ts'
import type { RunRow } from '../tables/runs.ts'
import { readJournal } from '../tables/journals.ts'
import type { JobAt } from './job-at.ts'
import { proofOf } from './proof.ts'

/** What First start is held against. */
export function afterFacts(job: JobAt): AfterFacts {
  const { lines, tally, taken } = job
  const { before, after } = tally
  return {
    lines,
    facts: proofOf(job).facts.map(({ fact, holds }) => ({ fact, holds: holds ?? undefined })),
    tally: { before: before ?? undefined, after: after ?? undefined },
    promised: promisedOf(taken?.shown.fates ?? []),
    readAt: after === null ? undefined : msOf(after.at),
  }
}

/** The worst of what was promised of the things that have a place; undefined: of nothing. */
const promisedOf = (fates: readonly { readonly fate: Fate; readonly partition: string }[]) => {
  const placed = fates.filter(({ partition }) => partition !== '').map(({ fate }) => fate)
  return placed.length === 0 ? undefined : worstFate(placed)
}

/** What is worse, and whether somebody decided on it; nothing while no run has ended. */
export function afterOf(job: JobAt): {
  readonly worse: readonly Worse[]
  readonly decided: boolean
} {
  const facts = afterFacts(job)
  const cured = job.run === undefined && curedBy(job.lines) !== undefined
  if (cured) return { worse: worseUnwritten(facts), decided: isDecided(facts) }
  if (job.run?.state !== 'ended') return { worse: [], decided: false }
  return { worse: worseAfter(facts), decided: isDecided(facts) }
}

/** What the customer's paper may say: every run of the slip, put away or not. */
export async function paperFor(workshop: Workshop, job: JobAt): Promise<Paper> {
  const runs = await listRunsOf(workshop.db, job.slip.number)
  const told = await Promise.all(runs.map((run) => paperRun(workshop, run)))
  const { taken, sight, device } = job
  const seen = runs.length === 0 ? undefined : (sight?.facts ?? device?.facts)
  const was = (fact: string) => numberOf(taken?.basis[`fact.${fact}`])
  const fates = await fatesOfAll(workshop, job.slip.number, runs)
  return paperOf({
    runs: told,
    fates,
    was: levelsOf(was),
    now: seen === undefined ? undefined : levelsOf((fact) => seen[fact]),
    bears: (job.family?.marks ?? []).flatMap(({ id, says }) =>
      seen?.marks?.includes(id) === true ? [says] : [],
    ),
    after: afterFacts(job),
  })
}

/** What became of each thing in all that was done: the worst of the plans that were run. */
async function fatesOfAll(
  { db }: Workshop,
  slip: string,
  runs: readonly RunRow[],
): Promise<Parameters<typeof paperOf>[0]['fates']> {
  const plans = await listPlans(db, slip)
  const worst = new Map<string, Parameters<typeof paperOf>[0]['fates'][number]>()
  for (const { startedAt } of runs) {
    const plan = plans.findLast(({ at }) => at <= msOf(startedAt))
    if (plan === undefined) continue
    for (const { item, name, fate } of fatesShown((plan.made as unknown as MadePlan).folds.fates)) {
      const before = worst.get(item)?.fate
      worst.set(item, {
        item,
        name,
        fate: worstFate(before === undefined ? [fate] : [before, fate]),
      })
    }
  }
  return [...worst.values()]
}

/** Floors and loader, as they are told of each fact. */
function levelsOf(of: (fact: Level) => number | undefined): Levels {
  const floors = FLOOR_FACTS.flatMap((fact) => {
    const value = of(fact as Level)
    return value === undefined ? [] : [[fact, value] as const]
  })
  return { floors: Object.fromEntries(floors), loader: of('loaderVersion') }
}
type Level = 'floor' | 'floorLoader' | 'floorModem' | 'floorMain' | 'loaderVersion'

/** One run for the paper: what its journal shows as kept, whatever its plan was. */
async function paperRun(workshop: Workshop, run: RunRow): Promise<PaperRun> {
  const journal = await readJournal(workshop.db, run.id)
  const images = run.plan.packages.flatMap(({ manifest }) => manifest.images)
  const next = run.shown?.next ?? 0
  const step = stepAt(run.steps, next)
  return {
    ended: run.state === 'ended',
    step: step?.number ?? 1,
    steps: run.steps.length,
    parts: standingOf(run.commands, journal).map((part) => ({
      ...part,
      role: images.find(({ sha256 }) => sha256 === part.image)?.role,
    })),
  }
}

/** A figure out of the basis, where texts stand for facts; empty and unreadable ones are none. */
const numberOf = (text: string | undefined): number | undefined => {
  const value = Number(text)
  return text === undefined || text === '' || !Number.isFinite(value) ? undefined : value
}
