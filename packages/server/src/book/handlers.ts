/** Handlers of the book: read, filter, check, export. */
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Contract } from '@plain-slate/api'
import { BOOK_PAGE } from '@plain-slate/api'
import { canonical, isoOf, ok } from '@plain-slate/core'
import { WRITTEN } from '../edge/mount.ts'
import type { Handler } from '../edge/mount.ts'
import { sendCsv } from '../edge/csv.ts'
import type { Workshop } from '../base/workshop.ts'
import { countEntries, listActs, listEntries, readHead, streamBook } from '../tables/book.ts'
import { lastCheck } from '../tables/checks.ts'
import { checkBook } from './check.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

/** An export of filtered entries holds at most this many lines; JSON Lines holds all. */
const CSV_MAX = 100_000

export function bookHandlers(workshop: Workshop) {
  const book: Of<'book'> = async ({ query }) => {
    const [entries, total, head, acts, check] = await Promise.all([
      listEntries(workshop.db, query, BOOK_PAGE),
      countEntries(workshop.db, query),
      readHead(workshop.db),
      listActs(workshop.db),
      lastCheck(workshop.db),
    ])
    return ok({ entries, total, head, acts, check })
  }
  const bookCheck: Of<'bookCheck'> = async () => {
    const check = await checkBook(workshop)
    return ok(check)
  }
  const bookJsonl: Of<'bookJsonl'> = async ({ res }) => {
    res.setHeader('content-type', 'application/jsonl; charset=utf-8')
    res.setHeader(
      'content-disposition',
      `attachment; filename="book-${await stamp(workshop)}.jsonl"`,
    )
    await pipeline(Readable.from(linesOf(workshop)), res)
    return ok(WRITTEN)
  }
  const bookCsv: Of<'bookCsv'> = async ({ query, res }) => {
    const entries = await listEntries(workshop.db, query, CSV_MAX)
    const rows = entries.map((entry) => [
      entry.seq,
      entry.at,
      entry.by ?? '',
      entry.act,
      entry.slip ?? '',
      canonical(entry.facts),
      entry.hash,
    ])
    const columns = ['seq', 'at', 'by', 'act', 'slip', 'facts', 'hash']
    await sendCsv(res, `book-${await stamp(workshop)}.csv`, columns, rows)
    return ok(WRITTEN)
  }
  return { book, bookCheck, bookJsonl, bookCsv }
}

async function* linesOf(workshop: Workshop): AsyncGenerator<string> {
  for await (const entry of streamBook(workshop.db)) yield `${canonical(entry)}\n`
}

const stamp = async (workshop: Workshop) => isoOf(await workshop.clock.now()).slice(0, 10)
