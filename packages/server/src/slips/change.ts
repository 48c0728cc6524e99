/**
 * Changing a slip's head without running anybody over. Each change says what the field said before:
 * where that still holds it is applied, where somebody else wrote meanwhile nothing is applied and
 * their version goes back. Changes of different fields by two people both stand.
 */
import type { Slip, SlipChange, SlipField, Theirs } from '@plain-slate/api'
import { SLIP_FIELDS } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import { isOver, ok, refuse } from '@plain-slate/core'
import { enter, layText } from '../book/append.ts'
import type { LaidText } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import { livesRefusal } from '../base/lives.ts'
import { aliveRuns } from '../tables/alive.ts'
import { lastWriter } from '../tables/book.ts'
import type { Transaction } from '../tables/database.ts'
import { tell } from '../tables/news.ts'
import { lockSlip, readSlip, updateSlip } from '../tables/slips.ts'

/** Fields that are personal text: the book holds their digest, not what they say. */
const PERSONAL: readonly SlipField[] = ['customer', 'words']

/** Applies what can be applied whole, or answers what stands in the way. */
export async function changeSlip(
  workshop: Workshop,
  number: string,
  change: SlipChange,
  by: string,
): Promise<Result<Slip, Refusal>> {
  return workshop.db.transaction(async (trx) => {
    const slip = await lockSlip(trx, number)
    if (slip === undefined) return refuse({ code: 'slip.unknown' as const, facts: { number } })
    if (isOver(slip.state))
      return refuse({ code: 'slip.ended' as const, facts: { number, state: slip.state } })
    const wanted = wantedOf(slip, change)
    /* Which device a run writes is not changed under it. */
    const [run] = wanted.some(({ field }) => field === 'model')
      ? await aliveRuns(trx, { slip: number })
      : []
    if (run !== undefined) return refuse(livesRefusal(number, run))
    const against = wanted.filter(({ field, from }) => valueOf(slip, field) !== from)
    if (against.length > 0) {
      const theirs: Theirs[] = []
      for (const { field } of against) theirs.push(await theirsOf(trx, slip, field))
      return refuse({ code: 'slip.conflict' as const, facts: { number }, more: { theirs } })
    }
    if (wanted.length > 0) await apply(workshop, trx, slip, wanted, by)
    const after = await readSlip(trx, number)
    return after === undefined
      ? refuse({ code: 'slip.unknown' as const, facts: { number } })
      : ok(after)
  })
}

type Wanted = { readonly field: SlipField; readonly from: string; readonly to: string }

/** What a head says in a field, as the change form writes it: empty when nothing is known. */
export function valueOf(slip: Slip, field: SlipField): string {
  return slip[field] ?? ''
}

/** The changes that change something. */
function wantedOf(slip: Slip, change: SlipChange): Wanted[] {
  return SLIP_FIELDS.flatMap((field) => {
    const one = change[field]
    if (one === undefined || one.to === valueOf(slip, field)) return []
    return [{ field, from: one.from, to: one.to }]
  })
}

async function theirsOf(trx: Transaction, slip: Slip, field: SlipField): Promise<Theirs> {
  const writer = await lastWriter(trx, slip.number, field)
  return { field, value: valueOf(slip, field), ...writer }
}

async function apply(
  workshop: Workshop,
  trx: Transaction,
  slip: Slip,
  wanted: readonly Wanted[],
  by: string,
): Promise<void> {
  const texts: Record<string, LaidText> = {}
  const columns = new Map<SlipField, string | null>()
  const said: Record<string, string> = {}
  for (const { field, to } of wanted) {
    if (!PERSONAL.includes(field)) {
      columns.set(field, to === '' && field !== 'promise' ? null : to)
      said[field] = to
    } else if (to === '') columns.set(field, null)
    else {
      const laid = await layText(trx, slip.number, to)
      texts[field] = laid
      columns.set(field, laid.id)
    }
  }
  const version = await updateSlip(trx, slip.number, columns)
  const facts = { fields: wanted.map(({ field }) => field), to: said }
  await enter(workshop, trx, { by, act: 'slip.changed', slip: slip.number, facts, texts })
  await tell(trx, 'slip', slip.number, version)
}
