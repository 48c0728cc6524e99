/**
 * The mirror of runs' journals. It only grows, and an entry that is there stays as it is: so what was read of it is kept in the
 * process, and the next who asks reads what came since.
 */
import type { JournalEntry } from '@plain-slate/core'
import type { Database, Transaction } from './database.ts'

/** Mirrors journal entries; ones that are there already stay as they are. */
export async function mirrorEntries(
  trx: Transaction,
  run: string,
  from: number,
  entries: readonly JournalEntry[],
): Promise<void> {
  if (entries.length === 0) return
  await trx('run_entries')
    .insert(entries.map((entry, index) => ({ run, n: from + index, entry: JSON.stringify(entry) })))
    .onConflict(['run', 'n'])
    .ignore()
}

type Row = { readonly n: number; readonly entry: JournalEntry }

/** Journals that are kept, those asked for last; past that the oldest is read anew. */
const KEPT_MOST = 50
const kept = new WeakMap<Database, Map<string, readonly JournalEntry[]>>()

/** The mirror of a run's journal, in its order. What a transaction has written may yet be taken back: it reads for itself. */
export async function readJournal(db: Database, run: string): Promise<readonly JournalEntry[]> {
  const before = db.isTransaction === true ? undefined : kept.get(db)?.get(run)
  const from = before?.length ?? 0
  const query = db('run_entries').where({ run }).orderBy('n').select('n', 'entry')
  const rows = (await (from === 0 ? query : query.where('n', '>=', from))) as Row[]
  const journal = [...(before ?? []), ...rows.map(({ entry }) => entry)]
  const isWhole = rows.every(({ n }, index) => n === from + index)
  if (isWhole && db.isTransaction !== true) keep(db, run, journal)
  return journal
}

function keep(db: Database, run: string, journal: readonly JournalEntry[]): void {
  const mine = kept.get(db) ?? new Map<string, readonly JournalEntry[]>()
  kept.set(db, mine)
  mine.delete(run)
  mine.set(run, journal)
  const [oldest] = mine.keys()
  if (mine.size > KEPT_MOST && oldest !== undefined) mine.delete(oldest)
}
