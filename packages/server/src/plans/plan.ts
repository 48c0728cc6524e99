/** Planning for a device: judged, planned, folded, rehearsed to its end and with its cuts. */
import { createHash } from 'node:crypto'
import type { Candidate, PlanShown } from '@plain-slate/api'
import type { Judgement, Move, NoPlan, OwnFigures, Plan, Result } from '@plain-slate/core'
import {
  aimOf,
  digestOfJson,
  fold,
  flatten,
  judge,
  bestMoves,
  movesOf,
  planOf as planAlong,
  routeAlong,
  measuredIn,
  ok,
  ownFigures,
  keepsPromise,
  refuse,
} from '@plain-slate/core'
import { findingWords, sayAny } from '@plain-slate/texts'
import type { Refusal } from '../base/refusal.ts'
import type { ProvenPackage } from '../shelf/shelf.ts'
import { packageMeant, shelvedOf } from '../shelf/shelf.ts'
import type { Database } from '../tables/database.ts'
import { lastEnded, listEnded } from '../tables/past-runs.ts'
import type { AtPort } from '../devices/case.ts'
import type { MadePlan } from './made.ts'
import { showPlan, stepsOf } from './made.ts'
import { partitionsOf } from './pictures.ts'
import { whyOf } from './why.ts'
import type { Rehearsed } from './rehearsals.ts'
import { rehearsed } from './rehearsals.ts'
import { stateAt } from './roads.ts'
import { findingOf } from './shown.ts'

/** A judged package as a row of the list. */
export const candidateOf = ({ shelved, verdict, findings }: Judgement): Candidate => ({
  package: shelved.key,
  title: shelved.manifest.title,
  build: shelved.manifest.build,
  verdict,
  findings: findings.map(findingOf),
})

/** A plan in its three forms: to be run, to be kept, to be shown. */
export type Planned = {
  readonly plan: Plan
  readonly made: MadePlan
  readonly shown: PlanShown
  readonly steps: ReturnType<typeof stepsOf>
  readonly found: AtPort
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

/** A plan on a case, folded and rehearsed, or why there is none. `package`: its name, or that of a route. */
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
  const folds = fold(plan, found.at, own)
  const { verdict, findings } = routeAlong(stateAt(found), plan.moves) ?? judge(at)
  const reaches = keepsPromise(plan, folds.fates, end, says)
  const made: MadePlan = {
    plan,
    port: asked.port,
    folds,
    floor: found.house.batteryFloor,
    judged: { verdict, findings },
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
export function failsAt(plan: Plan, stopped: Rehearsed['stopped']): MadePlan['fails'] {
  if (stopped === null) return { step: null, why: null }
  return { step: flatten(plan).steps[stopped.command] ?? null, why: whyOf(stopped.why) }
}

/** The plan alone, without folds and rehearsal: quick enough to ask whether one still holds. */
export function bareplan(found: AtPort, name: string) {
  const meant = movesMeant(found, name)
  if (!meant.ok) return meant
  const { moves, aim } = meant.value
  const made = planAlong(stateAt(found), moves)
  if (made.ok) return ok({ plan: made.value, at: { ...found.at, shelved: shelvedOf(aim) } })
  const facts = { title: aim.manifest.title, why: whyNone(made.refusal) }
  return refuse({ code: 'plan.none' as const, facts })
}

/** The moves of a route by its name; by the name of a package those of the best route to it. */
export function movesMeant(
  found: AtPort,
  name: string,
): Result<{ readonly moves: readonly Move[]; readonly aim: ProvenPackage }, Refusal> {
  const moves = movesOf(name)
  const meant = packageMeant(found.shelf, (moves && aimOf(moves)?.pack) ?? name)
  if (!meant.ok) return meant
  const aim = meant.value
  return ok({ moves: moves ?? bestMoves(stateAt(found), shelvedOf(aim)), aim })
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
