/** Packages as they are kept: the manifest of each with the archive it lay in. */
import type { Manifest } from '@plain-slate/core'
import { manifestSchema } from '@plain-slate/core'
import type { Database, Transaction } from './database.ts'

/** What the shelf's packages follow from: equal revisions, equal packages. Names the database too. */
export async function shelfRevision(db: Database): Promise<string> {
  const { rows } = (await db.raw(
    `select current_database() || ' ' || count(*) || ' ' || coalesce(max(id), 0) as revision
     from shelf_changes`,
  )) as { rows: { revision: string }[] }
  return rows[0]?.revision ?? ''
}

export type PackageHere = { readonly manifest: Manifest; readonly firstArchive: string }

/** Every package whose first archive is on the shelf, by id and then the oldest first. */
export async function listPackages(db: Database): Promise<PackageHere[]> {
  const rows = (await db('packages')
    .whereExists((there) =>
      there
        .from('archives')
        .whereRaw('archives.sha256 = packages.first_archive')
        .whereNull('archives.removed_at'),
    )
    .orderBy(['id', 'first_archive'])
    .select('manifest', 'first_archive')) as { manifest: unknown; first_archive: string }[]
  return rows.map((row) => ({
    manifest: manifestSchema.parse(row.manifest),
    firstArchive: row.first_archive,
  }))
}

/** Enters a package; one of the same id in another archive stays beside it. */
export async function putPackage(trx: Transaction, { manifest, firstArchive }: PackageHere) {
  await trx('packages')
    .insert({ id: manifest.id, manifest: JSON.stringify(manifest), first_archive: firstArchive })
    .onConflict(['id', 'first_archive'])
    .merge()
}
