/** Permits of makers as files, by the digest of their text. */
import type { Database, Transaction } from './database.ts'

/** Enters a permit's text; one that is here stays as it is. */
export async function insertPermit(
  trx: Transaction,
  row: {
    readonly sha256: string
    readonly text: string
    readonly by: string | null
    readonly at: Date
  },
): Promise<void> {
  await trx('permits').insert(row).onConflict('sha256').ignore()
}

/** The text of a permit; undefined: it is not here. */
export async function readPermitText(db: Database, sha256: string): Promise<string | undefined> {
  const row = (await db('permits').where({ sha256 }).first('text')) as
    { readonly text: string } | undefined
  return row?.text
}
