/** Handlers of a slip's job. */
import type { Response } from 'express'
import type { Contract, Job, PaperShown, RunShown } from '@plain-slate/api'
import type { Json, Paper, Result } from '@plain-slate/core'
import { ok, packState, refuse } from '@plain-slate/core'
import { WRITTEN, someone } from '../edge/mount.ts'
import type { Handler } from '../edge/mount.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import { showRun } from '../runs/show.ts'
import { readRun } from '../tables/runs.ts'
import { readShop } from '../tables/shop.ts'
import type { JobAt } from './job-at.ts'
import { judgeAsked, planAsked } from './asked.ts'
import { stateAt } from '../plans/roads.ts'
import { whyOf } from './left.ts'
import { drawLabel, labelOf } from './label.ts'
import { loadJob } from './load.ts'
import { otherwiseOf } from './otherwise.ts'
import { planPage, takePlan } from './plan.ts'
import { carryOver } from './carry.ts'
import { overruleRule } from './overrule.ts'
import { paperFor } from './after.ts'
import { benchCard, slipPaper } from './papers.ts'
import { takePermit } from './permit.ts'
import { proofOf } from './proof.ts'
import { readForSlip } from './read.ts'
import { takeReadingBack, typeReading } from './reading.ts'
import { readyOf } from './ready.ts'
import { routesOf } from './routes.ts'
import { sayLines } from './say.ts'
import { paperOfHouse, sheetOf } from './sheet.ts'
import { showJob } from './show.ts'
import { changesSince } from './standing.ts'
import { slipFileOf, takeSlipFile } from './slip-file.ts'
import { sayableOf } from './sayable.ts'
import { setSlipState } from './slip-state.ts'
import { startJob } from './start.ts'
import { wayOf } from './way.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

/** Loads a job and shows something of it. */
async function showing<Answer>(
  workshop: Workshop,
  number: string,
  show: (job: JobAt) => Answer | Promise<Answer>,
): Promise<Result<Answer, Refusal>> {
  const job = await loadJob(workshop, number)
  return job.ok ? ok(await show(job.value)) : job
}

/** The page of a plan that was taken, its job told anew before. */
async function takenPage(workshop: Workshop, taken: Result<JobAt, Refusal>) {
  if (!taken.ok) return taken
  await showJob(workshop, taken.value)
  return ok(await planPage(workshop, taken.value))
}

/** What people say of a job, read of it, and bring to it. */
function toldHandlers(workshop: Workshop) {
  const shown = async (job: Result<JobAt, Refusal>): Promise<Result<Job, Refusal>> =>
    job.ok ? ok(await showJob(workshop, job.value)) : job
  const job: Of<'job'> = async ({ params: { number } }) => shown(await loadJob(workshop, number))
  const jobLines: Of<'jobLines'> = async ({ params: { number }, body, actor }) =>
    shown(await sayLines(workshop, number, body.lines, actor))
  const jobSayable: Of<'jobSayable'> = ({ params: { number } }) =>
    showing(workshop, number, sayableOf)
  const jobOverrule: Of<'jobOverrule'> = async (call) =>
    shown(await overruleRule(workshop, call.params.number, { ...call.body, who: someone(call) }))
  const jobCarry: Of<'jobCarry'> = async ({ params: { number }, body, actor }) =>
    shown(await carryOver(workshop, number, { ...body, by: actor?.id ?? null }))
  const jobReading: Of<'jobReading'> = async ({ params: { number }, body, actor }) =>
    shown(await typeReading(workshop, number, body, actor?.id ?? null))
  const jobReadingBack: Of<'jobReadingBack'> = async ({ params: { number }, body, actor }) =>
    shown(await takeReadingBack(workshop, number, body, actor?.id ?? null))
  const jobPermit: Of<'jobPermit'> = async ({ params: { number }, body, actor }) =>
    shown(await takePermit(workshop, number, body.text, actor))
  const jobRead: Of<'jobRead'> = async ({ params: { number }, body, actor }) =>
    shown(await readForSlip(workshop, number, { ...body, by: actor?.id ?? null }))
  const slipState: Of<'slipState'> = (call) =>
    setSlipState(workshop, call.params.number, call.body, someone(call).id)
  return {
    ...{ slipState, job, jobLines, jobSayable, jobOverrule, jobCarry },
    ...{ jobReading, jobReadingBack, jobPermit, jobRead },
  }
}

export function jobHandlers(workshop: Workshop) {
  const judge: Of<'judge'> = ({ body }) => judgeAsked(workshop, body)
  const plan: Of<'plan'> = ({ body }) => planAsked(workshop, body)
  const jobRoutes: Of<'jobRoutes'> = ({ params: { number } }) =>
    showing(workshop, number, (at) => routesOf(workshop, at))
  const jobWhy: Of<'jobWhy'> = async ({ params: { number }, query }) => {
    const at = await loadJob(workshop, number)
    return at.ok ? whyOf(workshop.db, at.value, query.package) : at
  }
  const jobCase: Of<'jobCase'> = ({ params: { number } }) =>
    showing(workshop, number, ({ found }) => ({
      state: found === undefined ? null : (packState(stateAt(found)) as unknown as Json),
    }))
  const jobPlan: Of<'jobPlan'> = ({ params: { number } }) =>
    showing(workshop, number, (at) => planPage(workshop, at))
  const jobOtherwise: Of<'jobOtherwise'> = ({ params: { number } }) =>
    showing(workshop, number, (at) => otherwiseOf(workshop, at))
  const jobTake: Of<'jobTake'> = async ({ params: { number }, body, actor }) =>
    takenPage(workshop, await takePlan(workshop, number, body.digest, actor?.id ?? null))
  const jobReady: Of<'jobReady'> = ({ params: { number } }) =>
    showing(workshop, number, (at) => readyOf(workshop, at, changesSince(at) !== undefined))
  const jobStart: Of<'jobStart'> = async ({ params: { number }, body, actor }) => {
    const run = await startJob(workshop, number, { digest: body.digest, who: actor ?? 'shell' })
    if (!run.ok) return run
    const after = await loadJob(workshop, number)
    if (after.ok) await showJob(workshop, after.value)
    return ok<RunShown>(await showRun(workshop, run.value))
  }
  return {
    judge,
    plan,
    ...toldHandlers(workshop),
    jobRoutes,
    jobWhy,
    jobCase,
    jobPlan,
    jobOtherwise,
    jobTake,
    jobReady,
    jobStart,
    ...paperHandlers(workshop),
  }
}

/** A paper as JSON takes it. */
const paperShown = (paper: Paper): PaperShown => structuredClone(paper) as PaperShown

/** What hands and paper take from a job: the way into a mode, its proof, the customer's sheet, what a run of the twin was made from. */
function paperHandlers(workshop: Workshop) {
  const jobWay: Of<'jobWay'> = async ({ params: { number }, query }) => {
    const at = await loadJob(workshop, number)
    return at.ok ? wayOf(workshop, at.value, query) : at
  }
  const jobProof: Of<'jobProof'> = ({ params: { number } }) =>
    showing(workshop, number, async (at) => ({
      ...proofOf(at),
      paper: paperShown(await paperFor(workshop, at)),
    }))
  const jobSheet: Of<'jobSheet'> = async ({ params: { number }, query, res }) => {
    const at = await loadJob(workshop, number)
    if (!at.ok) return at
    return sendPdf(res, `sheet-${number}`, await sheetOf(workshop, at.value, query.texts))
  }
  const jobPaper: Of<'jobPaper'> = async ({ params: { number }, query, res }) => {
    const at = await loadJob(workshop, number)
    if (!at.ok) return at
    const pdf = await paperOfHouse(workshop, (date) => slipPaper(at.value, query.texts, date))
    return sendPdf(res, `slip-${number}`, pdf)
  }
  const jobCard: Of<'jobCard'> = async ({ params: { number }, res }) => {
    const at = await loadJob(workshop, number)
    if (!at.ok) return at
    const pdf = await paperOfHouse(workshop, (date) => benchCard(at.value, date))
    if (pdf === undefined) return refuse({ code: 'slip.no-plan', facts: { number } })
    return sendPdf(res, `card-${number}`, pdf)
  }
  const jobReplay: Of<'jobReplay'> = async ({ params: { id } }) => {
    const run = await readRun(workshop.db, id)
    const family = workshop.families.find((one) => one.id === run?.plan.family)
    if (run === undefined || run.made === null || family === undefined)
      return refuse({ code: 'run.unknown', facts: { id } })
    return ok({
      family: family as unknown as Json,
      plan: run.plan as unknown as Json,
      made: run.made,
      seconds: run.shown === null ? 0 : (run.shown.at - run.shown.runAt) / 1000,
    })
  }
  return { jobWay, jobProof, jobSheet, jobPaper, jobCard, jobReplay, ...fileHandlers(workshop) }
}

function sendPdf(res: Response, name: string, pdf: Buffer | undefined) {
  res.setHeader('content-disposition', `attachment; filename="${name}.pdf"`)
  res.type('application/pdf').send(pdf)
  return ok(WRITTEN)
}

/** A slip as a label and as a file. */
function fileHandlers(workshop: Workshop) {
  const jobLabel: Of<'jobLabel'> = async ({ params: { number }, res }) => {
    const at = await loadJob(workshop, number)
    if (!at.ok) return at
    const shop = await readShop(workshop.db)
    return sendPdf(res, `label-${number}`, await drawLabel(labelOf(at.value, shop?.zone ?? 'UTC')))
  }
  const slipFile: Of<'slipFile'> = async ({ params: { number }, query, res }) => {
    res.setHeader('content-disposition', `attachment; filename="slip-${number}.json"`)
    return showing(workshop, number, (at) => slipFileOf(workshop, at, query.texts === 'with'))
  }
  const slipFileTake: Of<'slipFileTake'> = ({ body, actor }) =>
    takeSlipFile(workshop, body.text, actor)
  return { jobLabel, slipFile, slipFileTake }
}
