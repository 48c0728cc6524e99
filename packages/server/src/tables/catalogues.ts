/** Catalogues of depots that were taken in, the newest of each standing. */
import type { CatalogueRow } from '@plain-slate/api'
import type { Database, Transaction } from './database.ts'

/** The number of a depot's newest catalogue; undefined: none was taken in. */
export async function newestOf(trx: Transaction, depot: string): Promise<number | undefined> {
  const row = (await trx('catalogues').where({ depot }).max('number as number').first()) as
    { readonly number: number | null } | undefined
  return row?.number ?? undefined
}

/** The keys that signed a depot's catalogues, the newest first; of those of before no more than the name of its file is known. */
export async function signersOf(
  trx: Transaction,
  depot: string,
): Promise<readonly { readonly name: string; readonly id: string | null }[]> {
  return (await trx('catalogues')
    .where({ depot })
    .orderBy('number', 'desc')
    .select('key_name as name', 'key_id as id')) as { name: string; id: string | null }[]
}

/** Enters a catalogue; answers its id. */
export async function insertCatalogue(
  trx: Transaction,
  {
    catalogue,
    key,
    by,
    at,
  }: {
    readonly catalogue: Omit<CatalogueRow, 'packages'> & { readonly packages: number }
    readonly key: { readonly name: string; readonly id: string }
    readonly by: string | null
    readonly at: Date
  },
): Promise<number> {
  const { from: depot, number, issued, expires, packages } = catalogue
  const signed = { key_name: key.name, key_id: key.id }
  const row = { depot, number, issued, expires, packages, ...signed, by, at }
  const [put] = (await trx('catalogues').insert(row).returning('id')) as { id: number }[]
  if (put === undefined) throw new Error('a catalogue was entered and has no id')
  return put.id
}

/** The newest catalogue of each depot. */
export async function listCatalogues(db: Database): Promise<readonly CatalogueRow[]> {
  const { rows } = (await db.raw(
    `select distinct on (depot) depot as from, number, issued, expires, packages
     from catalogues order by depot, number desc`,
  )) as { rows: CatalogueRow[] }
  return rows
}
