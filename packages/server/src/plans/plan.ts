/** Planning for a device: judged, planned, folded, rehearsed to its end and with its cuts. */
import { createHash } from 'node:crypto'
import type { Candidate, PlanShown } from '@plain-slate/api'
import type { Judgement, NoPlan, OwnFigures, Plan, Result } from '@plain-slate/core'
import {
  candidates,
  digestOfJson,
  fold,
  flatten,
  judge,
  makePlan,
  measuredIn,
  ok,
  ownFigures,
  keepsPromise,
  refuse,
} from '@plain-slate/core'
import { findingWords, sayAny } from '@plain-slate/texts'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import { packageMeant, shelvedOf } from '../shelf/shelf.ts'
import type { Database } from '../tables/database.ts'
import { lastEnded, listEnded } from '../tables/past-runs.ts'
import type { AtPort } from '../devices/case.ts'
import { caseAt, wantedAtPort } from '../devices/case.ts'
import type { MadePlan } from './made.ts'
import { showPlan, stepsOf } from './made.ts'
import { partitionsOf } from './pictures.ts'
import { whyOf } from './why.ts'
import type { Rehearsed } from './rehearsals.ts'
import { rehearsed } from './rehearsals.ts'
import { findingOf } from './shown.ts'

type Asked = Parameters<typeof wantedAtPort>[0]

/** Every package that could be the aim, in order, with every reason. */
export async function fitAt(
  workshop: Workshop,
  port: string,
  wanted: Asked,
): Promise<Result<Candidate[], Refusal>> {
  const found = await caseAt(workshop, port, wantedAtPort(wanted))
  return found.ok ? ok(candidates(found.value.at).map(candidateOf)) : found
}

/** A judged package as a row of the list. */
export const candidateOf = ({ shelved, verdict, findings }: Judgement): Candidate => ({
  package: shelved.key,
  title: shelved.manifest.title,
  build: shelved.manifest.build,
  verdict,
  findings: findings.map(findingOf),
})

export type PlanAsked = Asked & { readonly port: string; readonly package: string }
/** A plan in its three forms: to be run, to be kept, to be shown. */
export type Planned = {
  readonly plan: Plan
  readonly made: MadePlan
  readonly shown: PlanShown
  readonly steps: ReturnType<typeof stepsOf>
  readonly found: AtPort
}

/** A plan for the device at a port, or why there is none. */
export async function planAt(
  workshop: Workshop,
  asked: PlanAsked,
): Promise<Result<Planned, Refusal>> {
  const found = await caseAt(workshop, asked.port, wantedAtPort(asked))
  if (!found.ok) return found
  return planOn(found.value, asked, await figuresOf(workshop.db, found.value.family.id))
}

/** This bench's own figures for a family, from the runs that ended. */
export async function figuresOf(db: Database, family: string): Promise<OwnFigures> {
  const upTo = await lastEnded(db)
  const known = figures.get(`${family} ${upTo}`)
  if (known !== undefined) return known
  const made = await figuresFrom(db, family)
  figures.clear()
  figures.set(`${family} ${upTo}`, made)
  return made
}

/** Figures up to the run that ended last: they change with it alone. */
const figures = new Map<string, OwnFigures>()

/** Measured paces of the newest runs. */
async function figuresFrom(db: Database, family: string): Promise<OwnFigures> {
  const runs = await listEnded(db, family)
  return ownFigures(
    runs.flatMap(({ plan, commands, journal }) => {
      const scale = plan.packages.at(-1)?.manifest.scale ?? 1
      return measuredIn({ commands, journal, scale })
    }),
  )
}

/** A plan on a case, folded and rehearsed, or why there is none. */
export async function planOn(
  found: AtPort,
  asked: { readonly package: string; readonly port: string },
  own: OwnFigures,
): Promise<Result<Planned, Refusal>> {
  const bare = bareplan(found, asked.package)
  if (!bare.ok) return bare
  const { plan, at } = bare.value
  const digest = planDigest(plan)
  const { worst, end, says, assumed, stopped } = await rehearsed(found, plan, digest)
  const folds = fold(plan, at, own)
  const reaches = keepsPromise(plan, folds.fates, end, says)
  const made: MadePlan = {
    plan,
    port: asked.port,
    folds,
    judged: judge(at),
    worst,
    ends: {
      build: says.build ?? '',
      outcome: end.outcome,
      data: end.data.form,
      shows: end.shows ?? null,
      lock: end.lock,
    },
    reaches,
    fails: reaches ? null : failsAt(plan, stopped),
    own,
    partitions: partitionsOf(found),
    assumed,
    wayBack: at.shelf.find((one) => one.key === plan.wayBack)?.manifest.title ?? null,
  }
  return ok({
    plan,
    made,
    shown: showPlan(made, found.family, digest),
    steps: stepsOf(made, found.family),
    found,
  })
}

/** Where its rehearsal fails: the step and the reason; neither where only its end is another than promised. */
function failsAt(plan: Plan, stopped: Rehearsed['stopped']): MadePlan['fails'] {
  if (stopped === null) return { step: null, why: null }
  return { step: flatten(plan).steps[stopped.command] ?? null, why: whyOf(stopped.why) }
}

/** The plan alone, without folds and rehearsal: quick enough to ask whether one still holds. */
export function bareplan(found: AtPort, id: string) {
  const meant = packageMeant(found.shelf, id)
  if (!meant.ok) return meant
  const pack = meant.value
  const at = { ...found.at, shelved: shelvedOf(pack) }
  const made = makePlan({ at, mode: found.mode, permission: true })
  if (made.ok) return ok({ plan: made.value, at })
  const facts = { title: pack.manifest.title, why: whyNone(made.refusal) }
  return refuse({ code: 'plan.none' as const, facts })
}

/** Why there is no plan, as the second half of a sentence. */
function whyNone(refusal: NoPlan): string {
  if (refusal.kind !== 'not-takeable') return sayAny('en-GB', `plan.none.${refusal.kind}`, {})
  return findingWords('en-GB', refusal)
}

/** SHA-256 of text, as hex: the one that names plans. */
const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex')

/** What a plan is called by: equal plans are equal byte by byte. */
export const planDigest = (plan: Plan): string => digestOfJson(plan, sha256)
