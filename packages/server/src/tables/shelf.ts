/** Archives and packages. Bytes are in the vault; what was read of them is here. */
import type { Archive } from '@plain-slate/api'
import type { Manifest, ReadArchive } from '@plain-slate/core'
import { isoOf, manifestSchema, ms } from '@plain-slate/core'
import type { Database } from './database.ts'

type Row = {
  readonly id: string
  readonly name: string
  readonly sha256: string
  readonly bytes: string
  readonly done: string
  readonly state: Archive['state']
  readonly refusal: Archive['refusal']
  readonly entries: ReadArchive['entries']
  readonly refused_entries: number
  readonly package: string | null
  readonly trouble: string | null
  readonly by: string | null
  readonly at: Date
}

const withNames = (db: Database) =>
  db('archives')
    .leftJoin('people', 'people.id', 'archives.by')
    .select('archives.*', 'people.name as by')

/** Archives, the newest first. */
export async function listArchives(db: Database): Promise<Archive[]> {
  const rows = (await withNames(db).orderBy('archives.at', 'desc').limit(200)) as Row[]
  return rows.map(shownOf)
}

export async function readArchiveRow(db: Database, id: string): Promise<Archive | undefined> {
  const row = (await withNames(db).where('archives.id', id).first()) as Row | undefined
  return row === undefined ? undefined : shownOf(row)
}

function shownOf(row: Row): Archive {
  const { id, name, sha256, state, refusal, trouble, by } = row
  return {
    id,
    name,
    sha256,
    state,
    refusal,
    trouble,
    by,
    bytes: Number(row.bytes),
    done: Number(row.done),
    refusedEntries: row.refused_entries,
    entries: row.entries.length,
    package: row.package,
    at: isoOf(ms(row.at.getTime())),
  }
}

export type NewArchive = {
  readonly id: string
  readonly name: string
  readonly sha256: string
  readonly bytes: number
  readonly published: string | null
  readonly by: string | null
  readonly at: Date
}

/** Enters an archive whose bytes are stored and not read yet. */
export async function insertArchive(db: Database, archive: NewArchive): Promise<void> {
  await db('archives').insert({ ...archive, state: 'reading' })
}

/** How far reading is; only while it is read. */
export async function noteReading(db: Database, id: string, done: number): Promise<void> {
  await db('archives').where({ id, state: 'reading' }).update({ done })
}

export type ArchiveEnd = {
  readonly state: 'whole' | 'refused'
  readonly done: number
  readonly refusal: Archive['refusal']
  readonly entries: ReadArchive['entries']
  readonly refusedEntries: number
  readonly package: string | null
  readonly trouble: string | null
}

/** What reading came to. */
export async function endReading(db: Database, id: string, end: ArchiveEnd): Promise<void> {
  await db('archives')
    .where({ id })
    .update({
      state: end.state,
      done: end.done,
      refusal: JSON.stringify(end.refusal),
      entries: JSON.stringify(end.entries),
      refused_entries: end.refusedEntries,
      package: end.package,
      trouble: end.trouble,
    })
}

/** Archives that reading had not ended when the last server did. */
export async function listUnread(db: Database): Promise<string[]> {
  const rows = (await db('archives').where({ state: 'reading' }).select('id')) as { id: string }[]
  return rows.map(({ id }) => id)
}

/** An archive of this digest that was read whole, if there is one; and its published digest. */
export async function publishedOf(db: Database, id: string): Promise<string | null> {
  const row = (await db('archives').where({ id }).first('published')) as
    { published: string | null } | undefined
  return row?.published ?? null
}

/** Every archive that was read whole, for proving: one of each digest. */
export async function listWhole(db: Database): Promise<ReadArchive[]> {
  const rows = (await db('archives')
    .where({ state: 'whole' })
    .distinctOn('sha256')
    .orderBy('sha256')
    .select('name', 'sha256', 'entries', 'refused_entries')) as Row[]
  return rows.map(({ name, sha256, entries, refused_entries: refusedEntries }) => ({
    name,
    sha256,
    entries,
    refusedEntries,
  }))
}

export type PackageHere = { readonly manifest: Manifest; readonly firstArchive: string }

/** Every package, by id. */
export async function listPackages(db: Database): Promise<PackageHere[]> {
  const rows = (await db('packages').orderBy('id').select('manifest', 'first_archive')) as {
    manifest: unknown
    first_archive: string
  }[]
  return rows.map((row) => ({
    manifest: manifestSchema.parse(row.manifest),
    firstArchive: row.first_archive,
  }))
}

/** Enters a package, or the newer reading of one. */
export async function putPackage(db: Database, { manifest, firstArchive }: PackageHere) {
  await db('packages')
    .insert({ id: manifest.id, manifest: JSON.stringify(manifest), first_archive: firstArchive })
    .onConflict('id')
    .merge()
}
