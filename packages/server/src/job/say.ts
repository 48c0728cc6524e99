/** Saying things of a slip: lines under a name. */
import type { BodyOf, Contract, Slip } from '@plain-slate/api'
import type { Result, Role } from '@plain-slate/core'
import {
  AGAIN_TOPIC,
  FOR_A_PLAN,
  PERMIT_TOPIC,
  endedBy,
  lastAgainst,
  linesSince,
  msOf,
  permitFileOf,
  permitOf,
  reaches,
  refuse,
  repeats,
  standingLines,
  takes,
  topicOf,
  wordEnd,
} from '@plain-slate/core'
import type { LaidText } from '../book/append.ts'
import { enter, enterAll, layText } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Transaction } from '../tables/database.ts'
import type { NewLine } from '../tables/job.ts'
import { insertLines, listLines, planTakenAt } from '../tables/job.ts'
import { tell } from '../tables/news.ts'
import { lastRunOf, putAwayRunsOf } from '../tables/past-runs.ts'
import { aliveRuns } from '../tables/alive.ts'
import { holdByWord } from './held.ts'
import { raiseVersion, updateState } from '../tables/slips.ts'
import type { JobAt } from './job-at.ts'
import { notOffered } from './offered.ts'
import { onOpenSlip } from './open-slip.ts'

type Draft = BodyOf<Contract['jobLines']>['lines'][number]

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
  return amiss === undefined ? putDown(workshop, number, lines, who) : refuse(amiss)
}

/** Puts lines down that were looked over; `beside` is entered with them. */
export async function putDown(
  workshop: Workshop,
  number: string,
  lines: readonly Draft[],
  who: Speaker,
  beside: (trx: Transaction, at: Date) => Promise<void> = async () => undefined,
): Promise<Result<JobAt, Refusal>> {
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
    await beside(trx, at)
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
  /* A file is put down by itself, and by nobody's word. */
  const isNone = permitOf(answer) === undefined || permitFileOf(answer) !== undefined
  if (topic === PERMIT_TOPIC && isNone) return { code: 'slip.line', facts: { topic, answer } }
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
