/** The house's own row. */
import type { Database, Transaction } from './database.ts'

export type ShopRow = {
  readonly name: string
  readonly place: string
  readonly zone: string
  readonly demo: boolean
  readonly clockOffsetMs: number
}

/** The shop, or undefined when it is not founded yet. */
export async function readShop(db: Database): Promise<ShopRow | undefined> {
  const row = (await db('shop').first()) as Record<string, unknown> | undefined
  if (row === undefined) return undefined
  return {
    name: String(row['name']),
    place: String(row['place']),
    zone: String(row['zone']),
    demo: row['demo'] === true,
    clockOffsetMs: Number(row['clock_offset_ms']),
  }
}

/** Founds the shop; `firstSlip` is the number its first slip gets. False when it was founded before. */
export async function foundShop(
  trx: Transaction,
  shop: ShopRow & { readonly firstSlip: number },
): Promise<boolean> {
  const made = await trx('shop')
    .insert({
      id: 1,
      name: shop.name,
      place: shop.place,
      zone: shop.zone,
      demo: shop.demo,
      clock_offset_ms: shop.clockOffsetMs,
      next_slip: shop.firstSlip,
    })
    .onConflict('id')
    .ignore()
    .returning('id')
  return made.length === 1
}

/** Takes the next slip number. The row stays locked to the end of the transaction: no gap, no twin. */
export async function takeSlipNumber(trx: Transaction): Promise<string> {
  const [row] = (await trx('shop').increment('next_slip', 1).returning('next_slip')) as {
    next_slip: number
  }[]
  if (row === undefined) throw new Error('a slip in a shop that is not founded')
  return String(row.next_slip - 1).padStart(4, '0')
}
