import type { BookCheck, EventLine } from '@plain-slate/api'
import { verify } from '@plain-slate/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openBench } from '../testing/bench.ts'
import type { Bench, Browser } from '../testing/bench.ts'
import { sha256 } from './append.ts'

let bench: Bench
let tavi: Browser
beforeAll(async () => {
  bench = await openBench()
  tavi = await bench.at('Tavi')
})
afterAll(() => bench.close())

type Page = { entries: EventLine[]; total: number; head: { seq: number }; acts: string[] }
const page = async (query = '') => (await tavi.get<Page>(`/api/book?${query}`)).body
const exported = async () =>
  (await tavi.text('/api/book.jsonl'))
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as unknown)
const check = async () => (await tavi.post<BookCheck>('/api/book/check')).body

describe('the book', () => {
  it('grows by one entry with each act, and holds under twenty writers at once', async () => {
    const before = (await page()).head.seq
    const notes = Array.from({ length: 20 }, (_, index) =>
      tavi.post('/api/slips/0401/notes', { text: `note ${index}` }),
    )
    await Promise.all(notes)
    expect((await page()).head.seq).toBe(before + 20)
    expect(await check()).toMatchObject({ holds: true, entries: before + 20 })
  })

  it('is filtered by act, slip and person, newest first', async () => {
    const { entries } = await page('act=slip.noted&slip=0417')
    expect(entries.map((entry) => entry.by)).toEqual(['Tavi Renn', 'Ilse Maro'])
    expect((await page('slip=0417')).total).toBeGreaterThan(entries.length)
    expect(
      (await page('by=0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0004')).entries.every(
        (e) => e.by === 'Juno Aske',
      ),
    ).toBe(true)
  })

  it('turns its pages without a gap', async () => {
    const older = await page('before=11')
    expect(older.entries.map((entry) => entry.seq)).toEqual([10, 9, 8, 7, 6, 5, 4, 3, 2, 1])
    expect(older.total).toBe(older.head.seq)
  })

  it('leaves whole as JSON Lines that verify anywhere, and hold no personal text', async () => {
    const lines = await exported()
    expect(verify(lines, sha256)).toMatchObject({ ok: true, value: { seq: lines.length } })
    const text = await tavi.text('/api/book.jsonl')
    expect(text).not.toContain('Mara T.')
    expect(text).not.toContain('note 7')
  })

  it('leaves filtered as CSV', async () => {
    const csv = await tavi.text('/api/book.csv?slip=0416')
    expect(csv.trim().split('\r\n')).toHaveLength(1 + (await page('slip=0416')).total)
  })

  it('may be exported under the bench secret, which opens nothing else', async () => {
    const headers = { authorization: 'Bearer bench-secret' }
    const nobody = bench.browser()
    expect((await nobody.raw('/api/book.jsonl', { headers })).status).toBe(200)
    expect((await nobody.raw('/api/slips', { headers })).status).toBe(401)
    const wrong = { authorization: 'Bearer guess' }
    expect((await nobody.raw('/api/book.jsonl', { headers: wrong })).status).toBe(401)
  })

  it('refuses at the database itself to be changed, cut or emptied', async () => {
    for (const sql of [
      "update book_entries set act = 'x' where seq = 3",
      'delete from book_entries where seq = 3',
      'truncate book_entries cascade',
    ])
      await expect(bench.tamper(sql)).rejects.toThrow('the book only grows')
  })
})

describe('a book that somebody with all rights got at', () => {
  const behindItsBack = (sql: string) =>
    bench.tamper(`alter table book_entries disable trigger all; ${sql};
                  alter table book_entries enable trigger all`)

  it('names the entry whose text beside it was changed', async () => {
    const noted = (await page('act=slip.noted&slip=0416')).entries[0]?.seq ?? 0
    const swap = (from: string, to: string) =>
      bench.tamper(`update personal_texts set body = replace(body, '${from}', '${to}')`)
    await swap('sand box', 'window')
    expect((await check()).broken).toEqual({ seq: noted, why: 'text' })
    await swap('window', 'sand box')
    expect((await check()).holds).toBe(true)
  })

  it('names the first entry that was changed, and the place of one taken out', async () => {
    await behindItsBack(`update book_entries
      set canonical = replace(canonical, '"act":"', '"act":"x') where seq = 9`)
    expect(await check()).toMatchObject({ holds: false, broken: { seq: 9, why: 'hash' } })
    expect(verify(await exported(), sha256)).toMatchObject({ refusal: { seq: 9, why: 'hash' } })
    await behindItsBack(
      'delete from book_texts where seq = 7; delete from book_entries where seq = 7',
    )
    expect((await check()).broken).toEqual({ seq: 8, why: 'gap' })
  })
})
