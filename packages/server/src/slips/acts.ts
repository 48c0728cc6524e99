/** Acts on a slip besides its head and its state: notes, withdrawing its personal text. */
import type { EventLine, Slip } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import { enter, layText } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Face } from '@plain-slate/api'
import type { Second } from '../people/beside.ts'
import { allowed } from '../people/beside.ts'
import type { Refusal } from '../base/refusal.ts'
import { listEntries, withdrawTexts } from '../tables/book.ts'
import type { Transaction } from '../tables/database.ts'
import { tell } from '../tables/news.ts'
import { lockSlip, raiseVersion, readSlip } from '../tables/slips.ts'

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
