/** The book's rows, its lock and its texts. Chaining is core's; here rows are only put and read. */
import { randomUUID } from 'node:crypto'
import type { EventLine } from '@plain-slate/api'
import type { Head, HashedEntry } from '@plain-slate/core'
import { EMPTY_HEAD, canonical, entrySchema } from '@plain-slate/core'
import type { Database, Transaction } from './database.ts'

/** Key of the advisory lock under which the book is appended: "book" in ASCII. One book a database. */
const BOOK_LOCK = 0x626f6f6b

/**
 * Takes the book's lock to the end of the transaction and reads its head. Whoever appends waits
 * here; take it last in a transaction, so that nothing is held while waiting for rows.
 */
export async function lockHead(trx: Transaction): Promise<Head> {
  await trx.raw('select pg_advisory_xact_lock(?)', [BOOK_LOCK])
  return readHead(trx)
}

/** The last entry's number and hash, without the lock: for showing. */
export async function readHead(db: Database): Promise<Head> {
  const row = (await db('book_entries').orderBy('seq', 'desc').first('seq', 'hash')) as
    Head | undefined
  return row ?? EMPTY_HEAD
}

/** Puts entries that were chained under the lock. */
export async function insertEntries(
  trx: Transaction,
  chained: readonly HashedEntry[],
): Promise<void> {
  const rows = chained.map(({ hash, ...entry }) => ({
    seq: entry.seq,
    at: entry.at,
    by: entry.by,
    act: entry.act,
    slip: entry.slip ?? null,
    canonical: canonical(entry),
    hash,
  }))
  await trx('book_entries').insert(rows)
}

export type TextRow = {
  readonly slip: string
  readonly salt: Uint8Array
  readonly body: string
  readonly digest: string
}

/** Lays a personal text beside the book; answers its id. */
export async function insertText(trx: Transaction, text: TextRow): Promise<string> {
  const id = randomUUID()
  await trx('personal_texts').insert({ id, ...text, salt: Buffer.from(text.salt) })
  return id
}

/** Ties a text to an entry under what it is there. */
export async function tieText(
  trx: Transaction,
  seq: number,
  name: string,
  textId: string,
): Promise<void> {
  await trx('book_texts').insert({ seq, name, text_id: textId })
}

/** Erases bodies and salts of every text of a slip; answers how many there were to erase. */
export async function withdrawTexts(trx: Transaction, slip: string, at: Date): Promise<number> {
  return trx('personal_texts')
    .where({ slip })
    .whereNull('withdrawn_at')
    .update({ body: null, salt: null, withdrawn_at: at })
}

export type BookFilter = {
  readonly act?: string | undefined
  readonly slip?: string | undefined
  readonly by?: string | undefined
  readonly before?: number | undefined
}

type EntryRow = { readonly seq: number; readonly canonical: string; readonly hash: string }

/** Entries newest first, with names of people and bodies of texts; at most `limit`. */
export async function listEntries(
  db: Database,
  filter: BookFilter,
  limit: number,
): Promise<EventLine[]> {
  const rows = (await filtered(db, filter)
    .select('seq', 'canonical', 'hash')
    .orderBy('seq', 'desc')
    .limit(limit)) as EntryRow[]
  const texts = await textsOf(db, rows)
  const names = await namesOf(db)
  return rows.map((row) => lineOf(row, names, texts))
}

/** How many entries a filter leaves, pages aside. */
export async function countEntries(db: Database, filter: BookFilter): Promise<number> {
  const [row] = (await filtered(db, { ...filter, before: undefined }).count('* as n')) as {
    n: string
  }[]
  return Number(row?.n ?? 0)
}

/** The acts that stand in the book, for the filter. */
export async function listActs(db: Database): Promise<string[]> {
  const rows = (await db('book_entries').distinct('act').orderBy('act')) as { act: string }[]
  return rows.map((row) => row.act)
}

function filtered(db: Database, filter: BookFilter) {
  const query = db('book_entries')
  if (filter.act !== undefined) void query.where('act', filter.act)
  if (filter.slip !== undefined) void query.where('slip', filter.slip)
  if (filter.by !== undefined) void query.where('by', filter.by)
  if (filter.before !== undefined) void query.where('seq', '<', filter.before)
  return query
}

async function namesOf(db: Database): Promise<ReadonlyMap<string, string>> {
  const rows = (await db('people').select('id', 'name')) as { id: string; name: string }[]
  return new Map(rows.map((row) => [row.id, row.name]))
}

type Texts = ReadonlyMap<number, Record<string, string | null>>

async function textsOf(db: Database, rows: readonly EntryRow[]): Promise<Texts> {
  const found = (await db('book_texts')
    .join('personal_texts', 'personal_texts.id', 'book_texts.text_id')
    .whereIn(
      'seq',
      rows.map((row) => row.seq),
    )
    .select('seq', 'name', 'body')) as { seq: number; name: string; body: string | null }[]
  const texts = new Map<number, Record<string, string | null>>()
  for (const { seq, name, body } of found) texts.set(seq, { ...texts.get(seq), [name]: body })
  return texts
}

function lineOf(row: EntryRow, names: ReadonlyMap<string, string>, texts: Texts): EventLine {
  const entry = entrySchema.parse(JSON.parse(row.canonical))
  return {
    seq: entry.seq,
    at: entry.at,
    by: entry.by === null ? null : (names.get(entry.by) ?? entry.by),
    act: entry.act,
    slip: entry.slip ?? null,
    facts: entry.facts,
    texts: texts.get(row.seq) ?? {},
    hash: row.hash,
  }
}

/** The last change of a slip's field: who and when, from the book. */
export async function lastWriter(
  db: Database,
  slip: string,
  field: string,
): Promise<{ readonly by: string; readonly at: string }> {
  const row = (await db('book_entries')
    .where({ slip })
    .whereRaw(
      "(act = 'slip.opened' or (act = 'slip.changed' and canonical::jsonb -> 'facts' -> 'fields' \\? ?))",
      [field],
    )
    .orderBy('seq', 'desc')
    .first('seq', 'canonical', 'hash')) as EntryRow | undefined
  if (row === undefined) throw new Error(`slip ${slip} was never opened in the book`)
  const line = lineOf(row, await namesOf(db), new Map())
  return { by: line.by ?? '', at: line.at }
}

/** How many entries one read of the export or the check takes. */
const CHUNK = 500

/** The whole book in order, as it was hashed, read in chunks: what an export holds. */
export async function* streamBook(db: Database): AsyncGenerator<HashedEntry> {
  let after = 0
  for (;;) {
    const rows = (await db('book_entries')
      .where('seq', '>', after)
      .orderBy('seq')
      .limit(CHUNK)
      .select('seq', 'canonical', 'hash')) as EntryRow[]
    for (const row of rows) yield { ...readRow(row), hash: row.hash }
    const last = rows.at(-1)
    if (last === undefined) return
    after = last.seq
  }
}

function readRow(row: EntryRow) {
  return JSON.parse(row.canonical) as Omit<HashedEntry, 'hash'>
}

export type HeldText = {
  readonly seq: number
  readonly name: string
  readonly salt: Uint8Array
  readonly body: string
}

/** Every text that was not withdrawn, with the entry it is tied to: for the nightly check. */
export async function listHeldTexts(db: Database): Promise<HeldText[]> {
  return (await db('book_texts')
    .join('personal_texts', 'personal_texts.id', 'book_texts.text_id')
    .whereNull('withdrawn_at')
    .select('seq', 'name', 'salt', 'body')) as HeldText[]
}
