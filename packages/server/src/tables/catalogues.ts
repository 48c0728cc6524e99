/** Catalogues of depots that were taken in, the newest of each standing. */
import type { CatalogueRow } from '@plain-slate/api'
import type { DepotCatalogue } from '@plain-slate/core'
import type { Database, Transaction } from './database.ts'

/** The number of a depot's newest catalogue; undefined: none was taken in. */
export async function newestOf(trx: Transaction, depot: string): Promise<number | undefined> {
  const row = (await trx('catalogues').where({ depot }).max('number as number').first()) as
    { readonly number: number | null } | undefined
  return row?.number ?? undefined
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
    readonly catalogue: DepotCatalogue
    readonly key: string
    readonly by: string | null
    readonly at: Date
  },
): Promise<number> {
  const { from: depot, number, issued, expires, packages } = catalogue
  const row = { depot, number, issued, expires, packages: packages.length, key_name: key, by, at }
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
