/** What the walks over the chain found. */
import type { BookCheck } from '@plain-slate/api'
import type { Database } from './database.ts'

/** Keeps a check's result. */
export async function insertCheck(db: Database, check: BookCheck): Promise<void> {
  await db('book_checks')
    .insert({
      at: check.at,
      entries: check.entries,
      head: check.head,
      holds: check.holds,
      broken_seq: check.broken?.seq ?? null,
      why: check.broken?.why ?? null,
    })
    .onConflict('at')
    .merge()
}

/** The newest check, or null when none was made yet. */
export async function lastCheck(db: Database): Promise<BookCheck | null> {
  const row = (await db('book_checks').orderBy('at', 'desc').first()) as
    | {
        at: Date
        entries: number
        head: string
        holds: boolean
        broken_seq: number | null
        why: string | null
      }
    | undefined
  if (row === undefined) return null
  return {
    at: row.at.toISOString(),
    entries: row.entries,
    head: row.head,
    holds: row.holds,
    broken: row.why === null ? null : { seq: row.broken_seq, why: row.why },
  }
}
