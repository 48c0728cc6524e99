/** Saying things of a slip: lines under a name, and readings put down by hand. */
import type { BodyOf, Contract, Slip } from '@plain-slate/api'
import type { Fact, FactValue, Family, Result, Role } from '@plain-slate/core'
import {
  AGAIN_TOPIC,
  BUILD_TOPIC,
  FOR_A_PLAN,
  PERMIT_TOPIC,
  endedBy,
  isOver,
  lastAgainst,
  linesSince,
  msOf,
  permitOf,
  reaches,
  readTyped,
  refuse,
  repeats,
  standingLines,
  takes,
  topicOf,
  wordEnd,
} from '@plain-slate/core'
import { sayAny } from '@plain-slate/texts'
import type { LaidText } from '../book/append.ts'
import { enter, enterAll, layText } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import { dayOf } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Transaction } from '../tables/database.ts'
import type { NewLine } from '../tables/job.ts'
import { insertLines, insertReadings, listLines, planTakenAt } from '../tables/job.ts'
import { tell } from '../tables/news.ts'
import { lastRunOf, putAwayRunsOf } from '../tables/past-runs.ts'
import { buildsKnown } from '../tables/packages.ts'
import { aliveRuns } from '../tables/alive.ts'
import { holdByWord } from './held.ts'
import { lockSlip, raiseVersion, updateState } from '../tables/slips.ts'
import type { JobAt } from './job-at.ts'
import { loadJob } from './load.ts'
import { HANGING, choicesOf } from './wanted.ts'

type Draft = BodyOf<Contract['jobLines']>['lines'][number]

/** Does something to a slip that is not over, under its lock; answers the job after it. */
export async function onOpenSlip(
  workshop: Workshop,
  number: string,
  act: (trx: Transaction, slip: Slip) => Promise<Refusal | undefined>,
  { evenClosed }: { readonly evenClosed: boolean } = { evenClosed: false },
): Promise<Result<JobAt, Refusal>> {
  const refused = await workshop.db.transaction(async (trx): Promise<Refusal | undefined> => {
    const slip = await lockSlip(trx, number)
    if (slip === undefined) return { code: 'slip.unknown', facts: { number } }
    const care = evenClosed && slip.state === 'closed'
    if (isOver(slip.state) && !care)
      return { code: 'slip.ended', facts: { number, state: slip.state } }
    return act(trx, slip)
  })
  return refused === undefined ? loadJob(workshop, number) : refuse(refused)
}

/** Who says something: somebody who is signed in; undefined at the shell. */
export type Speaker =
  { readonly id: string; readonly name: string; readonly role: Role } | undefined

/**
 * Puts lines down. A damaged cell stops the slip, an account nobody can open declines it. What the same
 * person said already is recorded once; what comes after closing is said on a closed slip too.
 */
export async function sayLines(
  workshop: Workshop,
  number: string,
  lines: readonly Draft[],
  who: Speaker,
): Promise<Result<JobAt, Refusal>> {
  const wrong = lines.map((line) => whyNot(line, who)).find((refusal) => refusal !== undefined)
  if (wrong !== undefined) return refuse(wrong)
  const amiss = await notOffered(workshop, number, lines)
  if (amiss !== undefined) return refuse(amiss)
  const by = who?.id ?? null
  const evenClosed = lines.every(({ topic }) => topicOf(topic)?.after === true)
  const act = async (trx: Transaction, slip: Slip) => {
    const again = lines.some(({ topic }) => topic === AGAIN_TOPIC)
    if (again && (await lastRunOf(trx, number))?.state !== 'ended')
      return { code: 'slip.nothing-done' as const, facts: { number } }
    const now = await workshop.clock.now()
    const fresh = await notSaid(trx, number, lines, { by: who?.name ?? null, now })
    if (fresh.length === 0) return undefined
    const at = new Date(now)
    const alive = (await aliveRuns(trx, { slip: number })).length > 0
    await putLines(workshop, trx, number, { lines: fresh, by, at })
    /* Its work begins anew: what is over holds no port. */
    if (again) await putAwayRunsOf(trx, number)
    /* While its run lives the slip stays open: the run is held, and says for what. */
    const ended = alive
      ? undefined
      : fresh.map(({ topic, answer }) => endedBy(topic, answer)).find(Boolean)
    if (alive) await holdByWord(workshop, trx, number, who)
    const version =
      ended === undefined ? await raiseVersion(trx, number) : await updateState(trx, number, ended)
    if (ended !== undefined) {
      const facts = { from: slip.state, to: ended }
      await enter(workshop, trx, { by, act: 'slip.state', slip: number, facts })
    }
    await tell(trx, 'slip', number, version)
    return undefined
  }
  return onOpenSlip(workshop, number, act, { evenClosed })
}

/** Why a line cannot be put down: no such answer, not this person's word, or a reason is wanting. */
function whyNot({ topic, answer, note }: Draft, who: Speaker): Refusal | undefined {
  const known = topicOf(topic)
  if (known === undefined || known.apart === true || !takes(known, answer))
    return { code: 'slip.line', facts: { topic, answer } }
  if (topic === PERMIT_TOPIC && permitOf(answer) === undefined)
    return { code: 'slip.line', facts: { topic, answer } }
  const { least, reason } = known
  if (least !== undefined && !reaches(who?.role, least))
    return { code: 'act.refused', facts: { role: who?.role ?? 'shell', needs: least } }
  return reason === true && note === '' ? { code: 'slip.reason', facts: { topic } } : undefined
}

/** Lines that do not only repeat what the same person said last. */
async function notSaid(
  trx: Transaction,
  number: string,
  lines: readonly Draft[],
  { by, now }: { readonly by: string | null; readonly now: number },
): Promise<readonly Draft[]> {
  const all = await listLines(trx, number)
  const timed = all.map((line) => ({ ...line, at: msOf(line.at) }))
  /* What was said for an earlier piece of work is said anew for this one. */
  const again = timed.findLast(({ topic }) => topic === AGAIN_TOPIC)?.at
  const standing = standingLines(linesSince(timed, again))
  const plan = await planTakenAt(trx, number)
  const times = { plan, against: lastAgainst(timed), now }
  const ended = (topic: string): boolean => {
    const before = standing.get(topic)
    const isForPlan = FOR_A_PLAN.includes(topicOf(topic)?.group ?? '')
    /* At the counter a consent is asked before there is a plan. */
    if (before === undefined || !isForPlan) return false
    const isOfCounter = topicOf(topic)?.group === 'consent' && plan === undefined
    return !isOfCounter && wordEnd(before, times) !== undefined
  }
  return lines.filter((line) => !repeats(standing.get(line.topic), line, by, ended(line.topic)))
}

/** The answers are kept in the open; a note may name people, and lies beside the book. */
async function putLines(
  workshop: Workshop,
  trx: Transaction,
  slip: string,
  { lines, by, at }: { readonly lines: readonly Draft[] } & Pick<NewLine, 'by' | 'at'>,
): Promise<void> {
  const laid: (Draft & { readonly text: LaidText | undefined })[] = []
  for (const line of lines)
    laid.push({
      ...line,
      text: line.note === '' ? undefined : await layText(trx, slip, line.note),
    })
  const put = laid.map(({ topic, answer, text }) => ({
    ...{ topic, answer, by, at },
    noteText: text?.id ?? null,
  }))
  await insertLines(trx, slip, put)
  const entries = laid.map(({ topic, answer, text }) => ({
    ...{ by, act: 'slip.line' as const, slip, facts: { topic, answer } },
    ...(text === undefined ? {} : { texts: { note: text } }),
  }))
  await enterAll(workshop, trx, entries)
}

/** Why an answer that hangs on what the device is cannot be one: no such region, no such variant, no build of its family. */
async function notOffered(
  workshop: Workshop,
  number: string,
  lines: readonly Draft[],
): Promise<Refusal | undefined> {
  const hanging = lines.filter(({ topic }) => HANGING.includes(topic))
  const job = hanging.length === 0 ? undefined : await loadJob(workshop, number)
  if (job?.ok !== true || job.value.family === undefined) return undefined
  const { family } = job.value
  for (const { topic, answer } of hanging) {
    if (choicesOf(job.value, topic)?.includes(answer) === true) continue
    if (topic !== BUILD_TOPIC) return { code: 'slip.line', facts: { topic, answer } }
    const read = await readAs(workshop, [family], 'build', answer)
    if (!read.ok) return read.refusal
  }
  return undefined
}

/** What somebody typed for a fact, or what is said to them. */
async function readAs(
  workshop: Workshop,
  families: readonly Family[],
  fact: Fact,
  typed: string,
): Promise<Result<FactValue, Refusal>> {
  const value = readTyped(families, fact, typed, {
    ...(fact === 'build' ? { known: await buildsKnown(workshop.db) } : {}),
    today: await dayOf(workshop),
  })
  if (value.ok) return value
  const { why, perhaps, breaks } = value.refusal
  const meant =
    perhaps.length === 0
      ? ''
      : sayAny('en-GB', 'slip.reading.perhaps', { value: perhaps.join(', ') })
  const place = breaks === undefined ? '' : sayAny('en-GB', 'slip.reading.breaks', { ...breaks })
  return refuse({ code: 'slip.reading', facts: { value: typed, fact, why, place, perhaps: meant } })
}

/** Puts a reading down that somebody made. */
export async function typeReading(
  workshop: Workshop,
  number: string,
  typed: BodyOf<Contract['jobReading']>,
  by: string | null,
): Promise<Result<JobAt, Refusal>> {
  const { fact, source } = typed
  const value = await readAs(workshop, workshop.families, fact, typed.value)
  if (!value.ok) return value
  return onOpenSlip(workshop, number, async (trx) => {
    const at = new Date(await workshop.clock.now())
    await insertReadings(trx, number, [{ fact, value: value.value, source, mode: null, by, at }])
    const facts = { fact, value: value.value, source }
    await enter(workshop, trx, { by, act: 'slip.reading', slip: number, facts })
    await tell(trx, 'slip', number, await raiseVersion(trx, number))
    return undefined
  })
}
