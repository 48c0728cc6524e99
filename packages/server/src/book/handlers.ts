/** Handlers of the book: read, filter, check, export. */
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Contract } from '@plain-slate/api'
import { BOOK_PAGE } from '@plain-slate/api'
import { canonical, isoOf, ok } from '@plain-slate/core'
import { WRITTEN } from '../edge/mount.ts'
import type { Handler } from '../edge/mount.ts'
import { sendCsv } from '../edge/csv.ts'
import type { House } from '../house.ts'
import { countEntries, listActs, listEntries, readHead, streamBook } from '../tables/book.ts'
import { lastCheck } from '../tables/checks.ts'
import { checkBook } from './check.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

/** An export of filtered entries holds at most this many lines; JSON Lines holds all. */
const CSV_MAX = 100_000

export function bookHandlers(house: House) {
  const book: Of<'book'> = async ({ query }) => {
    const [entries, total, head, acts, check] = await Promise.all([
      listEntries(house.db, query, BOOK_PAGE),
      countEntries(house.db, query),
      readHead(house.db),
      listActs(house.db),
      lastCheck(house.db),
    ])
    return ok({ entries, total, head, acts, check })
  }
  const bookCheck: Of<'bookCheck'> = async () => {
    const check = await checkBook(house)
    return ok(check)
  }
  const bookJsonl: Of<'bookJsonl'> = async ({ res }) => {
    res.setHeader('content-type', 'application/jsonl; charset=utf-8')
    res.setHeader('content-disposition', `attachment; filename="book-${await stamp(house)}.jsonl"`)
    await pipeline(Readable.from(linesOf(house)), res)
    return ok(WRITTEN)
  }
  const bookCsv: Of<'bookCsv'> = async ({ query, res }) => {
    const entries = await listEntries(house.db, query, CSV_MAX)
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
    await sendCsv(res, `book-${await stamp(house)}.csv`, columns, rows)
    return ok(WRITTEN)
  }
  return { book, bookCheck, bookJsonl, bookCsv }
}

async function* linesOf(house: House): AsyncGenerator<string> {
  for await (const entry of streamBook(house.db)) yield `${canonical(entry)}\n`
}

const stamp = async (house: House) => isoOf(await house.clock.now()).slice(0, 10)
