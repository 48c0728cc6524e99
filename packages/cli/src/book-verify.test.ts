import { mkdtempSync, writeFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { EMPTY_HEAD, append, canonical } from '@plain-slate/core'
import type { Entry, Head } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { bookVerify } from './book-verify.ts'

const sha256 = (bytes: Uint8Array) => new Uint8Array(createHash('sha256').update(bytes).digest())

function exportOf(count: number, change: (lines: string[]) => string[] = (lines) => lines): string {
  let head: Head = EMPTY_HEAD
  const lines = Array.from({ length: count }, (_, index) => {
    const entry: Entry = {
      format: 'plain-slate/book-entry@1',
      seq: index + 1,
      at: '2026-10-15T14:22:00.000Z',
      by: null,
      act: 'slip.noted',
      facts: { n: index },
    }
    const hashed = append(head, entry, sha256)
    head = hashed
    return canonical(hashed)
  })
  const file = join(mkdtempSync(join(tmpdir(), 'book-')), 'book.jsonl')
  writeFileSync(file, change(lines).join('\n'))
  return file
}

describe('book verify', () => {
  it('says that a whole export holds, with its head', async () => {
    const { code, text } = await bookVerify([exportOf(3)])
    expect(code).toBe(0)
    expect(text).toMatch(/^3 entries: the chain holds, head [0-9a-f]{64}$/)
  })

  it('names the first entry that was changed', async () => {
    const touched = exportOf(5, (lines) => lines.map((line) => line.replace('"n":2', '"n":7')))
    const { code, text } = await bookVerify([touched])
    expect([code, text]).toEqual([1, expect.stringContaining('line 3, entry 3')])
  })

  it('names the place of one taken out, and a line that is none', async () => {
    const gap = await bookVerify([exportOf(5, (lines) => lines.filter((_, at) => at !== 1))])
    expect(gap.text).toBe('line 2 is entry 3, and entry 2 was to come; the 1 before it hold')
    const junk = await bookVerify([exportOf(2, ([first = ''] = []) => [first, '{"seq":'])])
    expect(junk.json).toMatchObject({ holds: false, why: 'unreadable', line: 2 })
  })

  it('says what it cannot reach', async () => {
    expect((await bookVerify(['/nowhere.jsonl'])).code).toBe(2)
    await expect(bookVerify(['--data', '/nowhere'])).rejects.toThrow('npm start')
  })
})
