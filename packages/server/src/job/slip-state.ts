/** Letting a slip wait, stopping, declining, closing it, opening it again: what may be, while runs live and stages are open. */
import type { Slip } from '@plain-slate/api'
import type { Result, SlipState } from '@plain-slate/core'
import { isOver, nextStates, ok, refuse } from '@plain-slate/core'
import { sayAny } from '@plain-slate/texts'
import { livesRefusal } from '../base/lives.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import { enter, layText } from '../book/append.ts'
import { aliveRuns } from '../tables/alive.ts'
import type { Transaction } from '../tables/database.ts'
import { tell } from '../tables/news.ts'
import { putAwayRunsOf } from '../tables/past-runs.ts'
import { lockSlip, readSlip, updateState } from '../tables/slips.ts'
import { loadJobIn } from './load.ts'
import { standingOf } from './standing.ts'

const unknown = (number: string) => refuse({ code: 'slip.unknown' as const, facts: { number } })

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
