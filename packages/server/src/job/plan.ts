/** The plan page of a job: the plan as it would be now, the one that was taken, what is compared. */
import type { PlanPage } from '@plain-slate/api'
import type { Json, Result } from '@plain-slate/core'
import { basisOf, compareLayout, layoutOf as layoutGiven, refuse } from '@plain-slate/core'
import { layoutRead } from '../devices/case.ts'
import { enter } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import { sayAny } from '@plain-slate/texts'
import type { Refusal } from '../base/refusal.ts'
import type { Planned } from '../plans/plan.ts'
import { figuresOf, planOn } from '../plans/plan.ts'
import { insertDocuments } from '../tables/documents.ts'
import { insertPlan } from '../tables/job.ts'
import { tell } from '../tables/news.ts'
import { raiseVersion } from '../tables/slips.ts'
import { decidedAgain, decisionFor } from './decision.ts'
import type { JobAt } from './job-at.ts'
import { loadJobIn } from './load.ts'
import { onOpenSlip } from './open-slip.ts'
import { changesSince } from './standing.ts'

/** The plan of the picked route, rehearsed; or why there is none. */
export async function plannedNow(
  workshop: Workshop,
  job: JobAt,
): Promise<Result<Planned, Refusal>> {
  const { found, picked, slip, sight } = job
  if (found === undefined || picked === undefined)
    return refuse({ code: 'slip.no-plan', facts: { number: slip.number } })
  const own = await figuresOf(workshop.db, found.family.id)
  return planOn(found, { package: picked.name, port: sight?.port ?? '' }, own)
}

/** The plan as it would be now beside the one that was taken; after a run has begun only the latter is told. */
export async function planPage(workshop: Workshop, job: JobAt): Promise<PlanPage> {
  const { taken, run } = job
  const planned = run === undefined ? await plannedNow(workshop, job) : undefined
  const now = planned?.ok === true ? planned.value : undefined
  return {
    now: now?.shown ?? null,
    why:
      planned === undefined || planned.ok
        ? null
        : sayAny('en-GB', `error.${planned.refusal.code}`, planned.refusal.facts ?? {}),
    taken:
      taken === undefined
        ? null
        : {
            at: taken.at,
            by: taken.by,
            package: taken.package,
            digest: taken.digest,
            shown: taken.shown,
            changes: changesSince(job)?.map((one) => ({ ...one })) ?? null,
            decided: await decidedAgain(workshop.db, taken.decision),
          },
    compared: comparedIn(job, now),
    ...layoutOf(job),
  }
}

/** Characters of a digest that are shown. */
const SHORT = 8

/** Image against device, by digest: what is equal is left alone, and only the device's own word proves that. */
function comparedIn({ device }: JobAt, now: Planned | undefined): PlanPage['compared'] {
  if (now === undefined) return []
  return now.plan.packages.flatMap(({ manifest, decisions }) =>
    decisions.map(({ image, write, reason }) => {
      const { kind, ...facts } = reason
      const own = device?.digests.find(
        ({ partition, size }) => partition === image.partition && size === image.size,
      )
      return {
        partition: image.partition,
        package: manifest.title,
        bytes: image.size * manifest.scale,
        write,
        reason: kind,
        facts,
        image: image.sha256.slice(0, SHORT),
        device: own?.sha256.slice(0, SHORT) ?? null,
      }
    }),
  )
}

/** The layout as it was read: against what it should be, and what is odd about the table itself. */
function layoutOf({ found, device }: JobAt): Pick<PlanPage, 'layout' | 'differences' | 'odd'> {
  const table = found?.read.table
  const odd = (layoutRead(device)?.problems ?? []).map((one) => ({
    kind: one.kind,
    names: 'names' in one ? [...one.names] : 'name' in one ? [one.name] : [],
    what: 'what' in one ? one.what : '',
  }))
  if (found === undefined || table === undefined) return { layout: 'unread', differences: [], odd }
  const { model, board, storageGb, scale } = found.facts
  if (storageGb === undefined) return { layout: 'unread', differences: [], odd }
  const about = { model, storageGb, ...(board === undefined ? {} : { board }) }
  const given = layoutGiven(found.family, about, scale)
  if (given === undefined) return { layout: 'unread', differences: [], odd }
  const differ = compareLayout(table, given)
  return {
    layout: differ.length === 0 ? 'equal' : 'differs',
    differences: differ.map(({ name, how }) => ({ partition: name, how })),
    odd,
  }
}

/** Takes the plan that was shown: it is kept with what it rests on. */
export async function takePlan(
  workshop: Workshop,
  number: string,
  digest: string,
  by: string | null,
): Promise<Result<JobAt, Refusal>> {
  return onOpenSlip(workshop, number, async (trx) => {
    const loaded = await loadJobIn(workshop, number, trx)
    if (!loaded.ok) return loaded.refusal
    const job = loaded.value
    if (job.run !== undefined) return { code: 'slip.running', facts: { number } }
    const planned = await plannedNow(workshop, job)
    if (!planned.ok) return planned.refusal
    const { plan, made, shown, found } = planned.value
    if (shown.digest !== digest) return { code: 'plan.changed', facts: { title: shown.title } }
    if (!shown.reaches) return { code: 'plan.fails', facts: { title: shown.title } }
    const packages = plan.packages.map(({ key }) => key)
    const { decision, documents } = decisionFor(job, planned.value)
    await insertDocuments(trx, documents)
    await insertPlan(trx, number, {
      package: shown.package,
      digest,
      mode: found.mode,
      basis: basisOf(found.at, found.mode, packages),
      made: made as unknown as Json,
      decision,
      by,
      at: new Date(await workshop.clock.now()),
    })
    const version = await raiseVersion(trx, number)
    await enter(workshop, trx, {
      by,
      act: 'plan.taken',
      slip: number,
      facts: { package: shown.package, plan: digest, steps: shown.steps.length },
    })
    await tell(trx, 'slip', number, version)
    return undefined
  })
}
