/** The folder for copies of the shop, and how each copy came out. Times are real ones: the shop's clock may be a demo's. */
import { isoOf, ms } from '@plain-slate/core'
import type { Database, Transaction } from './database.ts'

export type CopyRow = {
  readonly folder: string
  readonly at: string
  /** Why it failed; null: it is whole. */
  readonly why: string | null
  readonly mib: number
  readonly entries: number
}
export type Copies = {
  /** Null: the house names none. */
  readonly folder: string | null
  readonly namedAt: string | null
  /** The newest try, and the newest that came out whole in that folder. */
  readonly last: CopyRow | undefined
  readonly good: CopyRow | undefined
}

type Stored = Omit<CopyRow, 'at'> & { readonly at: Date }
const rowOf = ({ folder, at, why, mib, entries }: Stored): CopyRow => ({
  ...{ folder, why, mib, entries },
  at: isoOf(ms(at.getTime())),
})

export async function readCopies(db: Database): Promise<Copies> {
  const shop = (await db('shop').first('copy_folder', 'copy_named_at')) as
    { copy_folder: string | null; copy_named_at: Date | null } | undefined
  const folder = shop?.copy_folder ?? null
  const tries = db('copies')
    .where({ folder: folder ?? '' })
    .orderBy('id', 'desc')
  const [last, good] = (await Promise.all([
    tries.clone().first(),
    tries.clone().whereNull('why').first(),
  ])) as [Stored | undefined, Stored | undefined]
  const named = shop?.copy_named_at ?? null
  return {
    folder,
    namedAt: named === null ? null : isoOf(ms(named.getTime())),
    last: last === undefined ? undefined : rowOf(last),
    good: good === undefined ? undefined : rowOf(good),
  }
}

export async function nameCopyFolder(trx: Transaction, folder: string | null): Promise<void> {
  await trx('shop').update({ copy_folder: folder, copy_named_at: new Date() })
}

export async function insertCopy(db: Database, copy: CopyRow): Promise<void> {
  await db('copies').insert(copy)
}
