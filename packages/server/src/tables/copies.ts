/** The folder for copies of the shop, and how each copy came out. Times are real ones: the shop's clock may be a demo's. */
import type { CopyFault } from '@plain-slate/core'
import { COPY_FAULTS, isoOf, ms } from '@plain-slate/core'
import type { Database, Transaction } from './database.ts'

export type CopyWhy = {
  readonly fault: CopyFault
  readonly facts: Readonly<Record<string, string | number>>
}
export type CopyRow = {
  readonly folder: string
  readonly at: string
  /** Why it failed; null: it is whole. */
  readonly why: CopyWhy | null
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

type Stored = Omit<CopyRow, 'at' | 'why'> & {
  readonly at: Date
  readonly why: string | null
  readonly facts: CopyWhy['facts']
}
const rowOf = ({ folder, at, why, facts, mib, entries }: Stored): CopyRow => ({
  ...{ folder, mib, entries },
  why: why === null ? null : { fault: faultOf(why), facts },
  at: isoOf(ms(at.getTime())),
})
/** A fault that this version does not know is one of the others. */
const faultOf = (why: string): CopyFault => COPY_FAULTS.find((one) => one === why) ?? 'other'

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
  const { why, ...row } = copy
  await db('copies').insert({
    ...row,
    why: why?.fault ?? null,
    facts: JSON.stringify(why?.facts ?? {}),
  })
}
