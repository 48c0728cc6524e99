/** Texts by their SHA-256, put once and never changed: what decisions were made with. */
import type { Documents } from '@plain-slate/core'
import type { Database, Transaction } from './database.ts'

/** Puts what is not there yet; two who put the same at once disturb nobody. */
export async function insertDocuments(trx: Transaction, documents: Documents): Promise<void> {
  const rows = [...documents].map(([sha256, body]) => ({ sha256, body }))
  /* In one order, so that two who put the same do not wait for each other in a circle. */
  rows.sort((a, b) => (a.sha256 < b.sha256 ? -1 : 1))
  if (rows.length > 0) await trx('documents').insert(rows).onConflict('sha256').ignore()
}

export async function readDocuments(db: Database, named: readonly string[]): Promise<Documents> {
  const rows = (await db('documents').whereIn('sha256', named).select('sha256', 'body')) as {
    readonly sha256: string
    readonly body: string
  }[]
  return new Map(rows.map(({ sha256, body }) => [sha256, body]))
}
