/** What of the vault the tables name. */
import type { Database } from './database.ts'

/** Digests of the vault that any archive needs, with their bytes: what a copy of the shop must hold. */
export async function bytesNamed(
  db: Database,
): Promise<readonly { readonly sha256: string; readonly bytes: number }[]> {
  const rows = (await db('archives')
    .whereNot({ state: 'refused' })
    .groupBy('sha256')
    .orderBy('sha256')
    .select('sha256')
    .max('bytes as bytes')) as { sha256: string; bytes: string | number }[]
  return rows.map(({ sha256, bytes }) => ({ sha256, bytes: Number(bytes) }))
}
