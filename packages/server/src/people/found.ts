/** Founding an empty shop: its name, its first lead, the first entry. */
import { randomUUID } from 'node:crypto'
import { ms } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import { insertPerson } from '../tables/people.ts'
import { foundShop } from '../tables/shop.ts'
import type { Face } from '@plain-slate/api'
import { faceOf } from './face.ts'
import { hashPin } from './pin.ts'

const FIRST_SLIP = 1

/** Founds the shop with its first lead; undefined when it was founded before. */
export async function found(
  workshop: Workshop,
  draft: {
    readonly name: string
    readonly pin: string
    readonly shop: string
    readonly place: string
  },
): Promise<Face | undefined> {
  const pinHash = await hashPin(draft.pin)
  const now = ms(Date.now())
  return workshop.db.transaction(async (trx) => {
    const made = await foundShop(trx, {
      name: draft.shop,
      place: draft.place,
      zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      demo: false,
      clockOffsetMs: 0,
      firstSlip: FIRST_SLIP,
    })
    if (!made) return undefined
    const id = randomUUID()
    const lead = {
      id,
      name: draft.name,
      role: 'lead',
      active: true,
      addedAt: new Date(now),
    } as const
    await insertPerson(trx, { ...lead, pinHash })
    await enter(workshop, trx, { by: id, act: 'shop.founded', facts: { firstSlip: FIRST_SLIP } })
    return faceOf(lead)
  })
}
