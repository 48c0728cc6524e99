/** Acts on a slip that is not over, under its lock. */
import type { Slip } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import { isOver, refuse } from '@plain-slate/core'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Transaction } from '../tables/database.ts'
import { lockSlip } from '../tables/slips.ts'
import type { JobAt } from './job-at.ts'
import { loadJob } from './load.ts'

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
