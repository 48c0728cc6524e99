/** What of the vault the tables name. */
import type { Database } from './database.ts'

export type NamedBytes = { readonly sha256: string; readonly bytes: number; readonly name: string }

/** Bytes of the vault that any archive needs, with a name that one bears: what a copy of the shop must hold. */
export async function bytesNamed(db: Database): Promise<readonly NamedBytes[]> {
  const rows = (await db('archives')
    .whereNot({ state: 'refused' })
    .groupBy('sha256')
    .orderBy('sha256')
    .select('sha256')
    .max('bytes as bytes')
    .min('name as name')) as (Omit<NamedBytes, 'bytes'> & { bytes: string | number })[]
  return rows.map((row) => ({ ...row, bytes: Number(row.bytes) }))
}
