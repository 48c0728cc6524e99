/** Acts on a slip besides its head: notes, its state, withdrawing its personal text. */
import type { EventLine, Slip } from '@plain-slate/api'
import type { Result, SlipState } from '@plain-slate/core'
import { isOver, nextStates, ok, refuse } from '@plain-slate/core'
import { sayAny } from '@plain-slate/texts'
import { enter, layText } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Face } from '@plain-slate/api'
import type { Second } from '../people/beside.ts'
import { allowed } from '../people/beside.ts'
import type { Refusal } from '../base/refusal.ts'
import { loadJobIn } from '../job/load.ts'
import { standingOf } from '../job/standing.ts'
import { livesRefusal } from '../runs/held.ts'
import { aliveRuns } from '../tables/alive.ts'
import { listEntries, withdrawTexts } from '../tables/book.ts'
import type { Transaction } from '../tables/database.ts'
import { tell } from '../tables/news.ts'
import { putAwayRunsOf } from '../tables/past-runs.ts'
import { lockSlip, raiseVersion, readSlip, updateState } from '../tables/slips.ts'

const unknown = (number: string) => refuse({ code: 'slip.unknown' as const, facts: { number } })

/** Writes a note: an entry of the book whose text lies beside it. */
export async function noteOnSlip(
  workshop: Workshop,
  number: string,
  text: string,
  by: string,
): Promise<Result<EventLine, Refusal>> {
  return workshop.db.transaction(async (trx) => {
    if ((await lockSlip(trx, number)) === undefined) return unknown(number)
    const note = await layText(trx, number, text)
    const version = await raiseVersion(trx, number)
    const { seq } = await enter(workshop, trx, {
      by,
      act: 'slip.noted',
      slip: number,
      facts: {},
      texts: { note },
    })
    await tell(trx, 'slip', number, version)
    const [line] = await listEntries(trx, { slip: number, before: seq + 1 }, 1)
    return line === undefined ? unknown(number) : ok(line)
  })
}

/** Moves a slip to another state. Stopping and declining need a reason; the reason is personal text. */
export async function setSlipState(
  workshop: Workshop,
  number: string,
  wanted: { readonly state: SlipState; readonly reason: string },
  by: string,
): Promise<Result<Slip, Refusal>> {
  return workshop.db.transaction(async (trx) => {
    const slip = await lockSlip(trx, number)
    if (slip === undefined) return unknown(number)
    if (!nextStates(slip.state).includes(wanted.state))
      return refuse({ code: 'slip.state' as const, facts: { from: slip.state, to: wanted.state } })
    const inTheWay = await whyNotState(workshop, trx, slip, wanted)
    if (inTheWay !== undefined) return refuse(inTheWay)
    const reason = wanted.reason === '' ? undefined : await layText(trx, number, wanted.reason)
    const version = await updateState(trx, number, wanted.state)
    await enter(workshop, trx, {
      by,
      act: 'slip.state',
      slip: number,
      facts: { from: slip.state, to: wanted.state },
      ...(reason === undefined ? {} : { texts: { reason } }),
    })
    /* What was handed back no longer holds a port. */
    if (wanted.state === 'closed' && (await putAwayRunsOf(trx, number)) > 0)
      await tell(trx, 'bench', number, version)
    await tell(trx, 'slip', number, version)
    const after = await readSlip(trx, number)
    return after === undefined ? unknown(number) : ok(after)
  })
}

/**
 * What stands in the way of a state: a slip whose run lives is not over, nor is one opened again whose device another slip
 * writes; one closes when each of its stages is done, or with a reason.
 */
async function whyNotState(
  workshop: Workshop,
  trx: Transaction,
  { number }: Slip,
  { state, reason }: { readonly state: SlipState; readonly reason: string },
): Promise<Refusal | undefined> {
  if (isOver(state)) {
    const [run] = await aliveRuns(trx, { slip: number })
    if (run !== undefined) return livesRefusal(number, run)
  }
  if (state === 'closed' && reason === '') return stagesOpen(workshop, trx, number)
  return state === 'open' ? writtenElsewhere(workshop, trx, number) : undefined
}

/** Closing is itself the last thing to be done at Hand back. */
async function stagesOpen(
  workshop: Workshop,
  trx: Transaction,
  number: string,
): Promise<Refusal | undefined> {
  const job = await loadJobIn(workshop, number, trx)
  if (!job.ok) return job.refusal
  const stages = await standingOf(workshop, job.value)
  const open = stages.filter(({ is, says }) => is !== 'done' && says !== 'hand-back.close')
  if (open.length === 0) return undefined
  const what = open.map(({ stage }) => sayAny('en-GB', `stage.${stage}`, {})).join(', ')
  return { code: 'slip.stages-open', facts: { number, what } }
}

async function writtenElsewhere(
  workshop: Workshop,
  trx: Transaction,
  number: string,
): Promise<Refusal | undefined> {
  const job = await loadJobIn(workshop, number, trx)
  if (!job.ok || job.value.serial === undefined) return undefined
  const runs = await aliveRuns(trx, { serial: job.value.serial })
  const other = runs.find(({ slip }) => slip !== number)
  return other && livesRefusal(other.slip ?? '', other)
}

/**
 * Erases every personal text of a slip, with a second person's PIN. The book keeps digests: the chain
 * holds, and the texts read "withdrawn".
 */
export async function withdrawSlip(
  workshop: Workshop,
  number: string,
  actor: Face,
  second: Second | undefined,
): Promise<Result<{ withdrawn: number; slip: Slip }, Refusal>> {
  return workshop.db.transaction(async (trx) => {
    const asked = { act: 'text.withdraw', actor, slip: number, second } as const
    const beside = await allowed(workshop, trx, asked)
    return beside.ok ? withdraw(workshop, trx, number, actor, beside.value) : beside
  })
}

async function withdraw(
  workshop: Workshop,
  trx: Transaction,
  number: string,
  actor: Face,
  second: { readonly id: string } | undefined,
): Promise<Result<{ withdrawn: number; slip: Slip }, Refusal>> {
  if ((await lockSlip(trx, number)) === undefined) return unknown(number)
  const withdrawn = await withdrawTexts(trx, number, new Date(await workshop.clock.now()))
  const version = await raiseVersion(trx, number)
  await enter(workshop, trx, {
    by: actor.id,
    act: 'text.withdrawn',
    slip: number,
    facts: { texts: withdrawn, second: second?.id ?? '' },
  })
  await tell(trx, 'slip', number, version)
  const slip = await readSlip(trx, number)
  return slip === undefined ? unknown(number) : ok({ withdrawn, slip })
}
