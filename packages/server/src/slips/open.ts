/** Opening a slip: the next number, its personal texts beside the book, its first entry. */
import type { BodyOf, Contract, Slip } from '@plain-slate/api'
import { isoOf } from '@plain-slate/core'
import { enter, layText } from '../book/append.ts'
import type { LaidText } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Transaction } from '../tables/database.ts'
import { tell } from '../tables/news.ts'
import { takeSlipNumber } from '../tables/shop.ts'
import { insertSlip, readSlip } from '../tables/slips.ts'

export type SlipDraft = BodyOf<Contract['slipOpen']>

/** Opens a slip in the name of `by`, or of nobody at the shell. Throws when the shop is not founded. */
export async function openSlip(
  workshop: Workshop,
  draft: SlipDraft,
  by: string | null,
): Promise<Slip> {
  return workshop.db.transaction(async (trx) => {
    const number = await takeSlipNumber(trx)
    const customer = await layIfSaid(trx, number, draft.customer)
    const words = await layIfSaid(trx, number, draft.words)
    await insertSlip(trx, {
      number,
      device: draft.device,
      model: draft.model === '' ? null : draft.model,
      intent: draft.intent,
      promise: draft.promise,
      stage: 'intake',
      state: 'open',
      due: draft.due === '' ? null : draft.due,
      openedAt: isoOf(await workshop.clock.now()),
      openedBy: by,
      customerText: customer?.id ?? null,
      wordsText: words?.id ?? null,
    })
    const { device, model, intent, promise, due } = draft
    await enter(workshop, trx, {
      by,
      act: 'slip.opened',
      slip: number,
      facts: { device, model, intent, promise, due },
      texts: { ...(customer && { customer }), ...(words && { words }) },
    })
    await tell(trx, 'slip', number, 1)
    const slip = await readSlip(trx, number)
    if (slip === undefined) throw new Error(`slip ${number} was put and is not there`)
    return slip
  })
}

async function layIfSaid(
  trx: Transaction,
  number: string,
  text: string,
): Promise<LaidText | undefined> {
  return text === '' ? undefined : layText(trx, number, text)
}
