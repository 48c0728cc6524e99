/**
 * Archives and packages. Bytes are in the vault; what was read of them is here. Locking contract: who lays
 * bytes into the vault under a row, and who takes bytes out, holds the lock of their digest (`lockBytes`)
 * to the end of the transaction, so that no row loses its bytes to another's refusal.
 */
import type { Archive } from '@plain-slate/api'
import type { OutsideDigest, OutsideSource, ReadArchive } from '@plain-slate/core'
import { isoOf, ms } from '@plain-slate/core'
import type { Database, Transaction } from './database.ts'

type Row = {
  readonly id: string
  readonly name: string
  readonly sha256: string
  readonly bytes: string
  readonly done: string
  readonly state: Archive['state']
  readonly refusal: Archive['refusal']
  readonly entry_count: number
  readonly refused_entries: number
  readonly end_mark: boolean
  readonly behind: Archive['behind']
  readonly package: string | null
  readonly trouble: string | null
  readonly stamp: string | null
  readonly by: string | null
  readonly at: Date
  readonly removed_at: Date | null
}

/** Archives that are told at once; older ones are history. */
const LISTED_MOST = 200

const withNames = (db: Database) =>
  db('archives')
    .leftJoin('people', 'people.id', 'archives.by')
    .select('archives.*', 'people.name as by')

/** Archives, the newest first; removed ones are told as such as long as they can be put back. */
export async function listArchives(db: Database): Promise<Archive[]> {
  const rows = (await withNames(db).orderBy('archives.at', 'desc').limit(LISTED_MOST)) as Row[]
  return rows.map(shownOf)
}

export async function readArchiveRow(db: Database, id: string): Promise<Archive | undefined> {
  const row = (await withNames(db).where('archives.id', id).first()) as Row | undefined
  return row === undefined ? undefined : shownOf(row)
}

/** Who sent an archive, by id; null: nobody who was signed in, at the shell. */
export async function senderOf(db: Database, id: string): Promise<string | null> {
  const row = (await db('archives').where({ id }).first('by')) as
    { readonly by: string | null } | undefined
  return row?.by ?? null
}

function shownOf(row: Row): Archive {
  const { id, name, sha256, state, refusal, behind, trouble, by } = row
  return {
    id,
    name,
    sha256,
    state,
    refusal,
    behind,
    trouble,
    by,
    bytes: Number(row.bytes),
    done: Number(row.done),
    refusedEntries: row.refused_entries,
    entries: row.entry_count,
    endMark: row.end_mark,
    package: row.package,
    at: isoOf(ms(row.at.getTime())),
    removedAt: row.removed_at === null ? null : isoOf(ms(row.removed_at.getTime())),
  }
}

/** Holds the bytes of a digest to the end of the transaction: nobody else lays them down or drops them. */
export async function lockBytes(trx: Transaction, sha256: string): Promise<void> {
  await trx.raw('select pg_advisory_xact_lock(hashtextextended(?, 0))', [sha256])
}

/** Rows that need the bytes of a digest: all but refused ones, removed ones as long as they are kept. */
export async function ownersOf(trx: Transaction, sha256: string): Promise<number> {
  const [row] = (await trx('archives')
    .where({ sha256 })
    .whereNot({ state: 'refused' })
    .count('* as n')) as { n: string }[]
  return Number(row?.n ?? 0)
}

export type NewArchive = {
  readonly id: string
  readonly name: string
  readonly sha256: string
  readonly bytes: number
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

export type EntryRow = ReadArchive['entries'][number] & { readonly refused: string | null }

export type ArchiveEnd = {
  readonly state: 'whole' | 'refused' | 'failed'
  readonly done: number
  readonly refusal: Archive['refusal']
  readonly entries: readonly EntryRow[]
  readonly endMark: boolean
  readonly behind: Archive['behind']
  readonly package: string | null
  readonly trouble: string | null
  /** What the vault said of the bytes when they were read: other later, and they were touched. */
  readonly stamp: string | null
}

/** What reading came to; false when it had ended already. */
export async function endReading(trx: Transaction, id: string, end: ArchiveEnd): Promise<boolean> {
  const count = await trx('archives')
    .where({ id, state: 'reading' })
    .update({
      state: end.state,
      done: end.done,
      refusal: JSON.stringify(end.refusal),
      entry_count: end.entries.length,
      refused_entries: end.entries.filter(({ refused }) => refused !== null).length,
      end_mark: end.endMark,
      behind: JSON.stringify(end.behind),
      package: end.package,
      trouble: end.trouble,
      stamp: end.stamp,
    })
  if (count === 0) return false
  await trx('archive_entries').where({ archive: id }).delete()
  await trx.raw(
    `insert into archive_entries (archive, n, name, place, size, sha256, refused)
     select ?, one.n - 1, one.entry->>'name', (one.entry->>'offset')::bigint,
            (one.entry->>'size')::bigint, one.entry->>'sha256', one.entry->>'refused'
     from jsonb_array_elements(?::jsonb) with ordinality as one (entry, n)`,
    [id, JSON.stringify(end.entries)],
  )
  return true
}

/** Has an archive read again whose reading failed; false when it is in another state. */
export async function readAgain(trx: Transaction, id: string): Promise<boolean> {
  const again = { state: 'reading', done: 0, trouble: null }
  return (await trx('archives').where({ id, state: 'failed' }).update(again)) === 1
}

/** A page of an archive's entries in their order, refused ones alone when asked. */
export async function listEntries(
  db: Database,
  {
    archive,
    after,
    refused,
    limit,
  }: {
    readonly archive: string
    readonly after: number
    readonly refused: boolean
    readonly limit: number
  },
): Promise<readonly (EntryRow & { readonly n: number })[]> {
  const query = db('archive_entries').where({ archive }).where('n', '>', after)
  const rows = (await (refused ? query.whereNotNull('refused') : query)
    .orderBy('n')
    .limit(limit)) as (Omit<EntryRow, 'offset' | 'size'> & {
    n: number
    place: string
    size: string
  })[]
  return rows.map(({ n, name, place, size, sha256, refused: why }) => ({
    n,
    name,
    offset: Number(place),
    size: Number(size),
    sha256,
    refused: why,
  }))
}

/** Archives that reading had not ended when the last server did. */
export async function listUnread(db: Database): Promise<string[]> {
  const rows = (await db('archives').where({ state: 'reading' }).select('id')) as { id: string }[]
  return rows.map(({ id }) => id)
}

/** Marks an archive removed, or takes that back; false when it is so already, or is still read. */
export async function markRemoved(trx: Transaction, id: string, at: Date | null): Promise<boolean> {
  const query = trx('archives').where({ id }).whereNot({ state: 'reading' })
  const open = at === null ? query.whereNotNull('removed_at') : query.whereNull('removed_at')
  return (await open.update({ removed_at: at })) === 1
}

/** Forgets archives that were removed before a time; answers the digests of their bytes. */
export async function forgetRemoved(trx: Transaction, before: Date): Promise<readonly string[]> {
  const gone = (await trx('archives')
    .where('removed_at', '<', before)
    .delete()
    .returning('sha256')) as { sha256: string }[]
  await trx('packages')
    .whereNull('catalogue')
    .whereNotExists((there) =>
      there.from('archives').whereRaw('archives.sha256 = packages.first_archive'),
    )
    .delete()
  return [...new Set(gone.map(({ sha256 }) => sha256))]
}

/** Runs under way that read bytes of a digest: it must stay for them. */
export async function runsReading(db: Database, sha256: string): Promise<number> {
  const [row] = (await db('runs')
    .whereNot({ state: 'ended' })
    .where({ put_away: false })
    .whereRaw('places @> ?::jsonb', [JSON.stringify([{ archive: sha256 }])])
    .count('* as n')) as { n: string }[]
  return Number(row?.n ?? 0)
}

type Outside = {
  readonly archive: string
  readonly sha256: string
  readonly source: OutsideSource
  readonly place: string
  readonly by: string | null
  readonly at: Date
}

/** Keeps what somebody outside says of an archive. */
export async function insertOutside(db: Database, told: Outside): Promise<void> {
  await db('outside_digests').insert(told)
}

/** Keeps that one source says of each of these archives what its digest is; a word that stands is not put twice. */
export async function insertOutsideAll(
  trx: Transaction,
  archives: readonly string[],
  { source, place, by, at }: Pick<Outside, 'source' | 'place' | 'by' | 'at'>,
): Promise<void> {
  await trx.raw(
    `insert into outside_digests (archive, sha256, source, place, by, at)
     select one, one, ?, ?, ?, ? from unnest(?::text[]) as one
     where coalesce((select said.sha256 from outside_digests as said
                     where said.archive = one and said.source = ?
                     order by said.id desc limit 1), '') <> one`,
    [source, place, by, at, [...archives], source],
  )
}

/** A volume that is here whole: what was read of it, its bytes, what shows whether it was touched since. */
export type VolumeRow = ReadArchive & {
  readonly bytes: number
  readonly stamps: readonly string[]
}

/** Volumes among these digests that were read whole, with the entries of these names, and what others say. */
export async function listVolumes(
  db: Database,
  digests: readonly string[],
  files: readonly string[],
): Promise<readonly VolumeRow[]> {
  const here = (await db('archives')
    .where({ state: 'whole' })
    .whereNull('removed_at')
    .whereIn('sha256', [...digests])
    .orderBy('at', 'desc')
    .select('id', 'name', 'sha256', 'bytes', 'refused_entries', 'stamp')) as Row[]
  const volumes = new Map([...here].reverse().map((row) => [row.sha256, row]))
  const ids = [...volumes.values()].map(({ id }) => id)
  const [entries, outside] = await Promise.all([entriesNamed(db, ids, files), toldOf(db, digests)])
  return [...volumes.values()].map(({ id, name, sha256, bytes, refused_entries }) => ({
    name,
    sha256,
    bytes: Number(bytes),
    refusedEntries: refused_entries,
    entries: entries.get(id) ?? [],
    outside: outside.get(sha256) ?? [],
    stamps: here.flatMap((row) => (row.sha256 === sha256 && row.stamp !== null ? row.stamp : [])),
  }))
}

async function entriesNamed(
  db: Database,
  archives: readonly string[],
  files: readonly string[],
): Promise<ReadonlyMap<string, ReadArchive['entries']>> {
  const rows = (await db('archive_entries')
    .whereIn('archive', [...archives])
    .whereIn('name', [...files])
    .whereNull('refused')
    .orderBy('n')) as {
    archive: string
    name: string
    place: string
    size: string
    sha256: string
  }[]
  const by = new Map<string, ReadArchive['entries'][number][]>()
  for (const { archive, name, place, size, sha256 } of rows) {
    const entry = { name, offset: Number(place), size: Number(size), sha256 }
    by.set(archive, [...(by.get(archive) ?? []), entry])
  }
  return by
}

async function toldOf(
  db: Database,
  digests: readonly string[],
): Promise<ReadonlyMap<string, readonly OutsideDigest[]>> {
  const rows = (await db('outside_digests')
    .whereIn('archive', [...digests])
    .orderBy('id')) as Outside[]
  const by = new Map<string, OutsideDigest[]>()
  for (const { archive, sha256, source, place: where, at } of rows) {
    const told = { sha256, source, where, at: isoOf(ms(at.getTime())) }
    by.set(archive, [...(by.get(archive) ?? []), told])
  }
  return by
}

/** For each digest, the archive on the shelf that was read whole of it. */
export async function wholeArchives(
  db: Database,
  digests: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  const rows = (await db('archives')
    .where({ state: 'whole' })
    .whereNull('removed_at')
    .whereIn('sha256', [...digests])
    .orderBy('at')
    .select('id', 'sha256')) as { id: string; sha256: string }[]
  return new Map(rows.map(({ id, sha256 }) => [sha256, id]))
}
