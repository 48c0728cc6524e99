import { createHash } from 'node:crypto'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { EMPTY_HEAD, NO_HASH, append, hashEntry, textDigest, toHex, verify } from './chain.ts'
import type { Head } from './chain.ts'
import type { Entry, HashedEntry } from './entry.ts'

const sha256 = (bytes: Uint8Array) => new Uint8Array(createHash('sha256').update(bytes).digest())

const entry = (seq: number, facts: Entry['facts'] = {}): Entry => ({
  format: 'plain-slate/book-entry@1',
  seq,
  at: '2026-10-15T14:22:00.000Z',
  by: 'p1',
  act: 'slip.noted',
  facts,
})

function bookOf(count: number): HashedEntry[] {
  let head: Head = EMPTY_HEAD
  return Array.from({ length: count }, (_, index) => {
    const hashed = append(head, entry(index + 1, { n: index }), sha256)
    head = hashed
    return hashed
  })
}

describe('the book', () => {
  it('chains each entry to the raw bytes of the hash before it', () => {
    const text =
      '{"act":"slip.noted","at":"2026-10-15T14:22:00.000Z","by":"p1","facts":{},' +
      '"format":"plain-slate/book-entry@1","seq":1}'
    const byHand = createHash('sha256').update(Buffer.alloc(32)).update(text, 'utf8').digest('hex')
    expect(hashEntry(NO_HASH, entry(1), sha256)).toBe(byHand)
  })

  it('holds from end to end and names its head', () => {
    const book = bookOf(20)
    expect(verify(book, sha256)).toEqual({ ok: true, value: { seq: 20, hash: book[19]?.hash } })
    expect(verify([], sha256)).toEqual({ ok: true, value: EMPTY_HEAD })
  })

  it('names the first entry in which anything at all was changed', () => {
    const change = fc.record({ at: fc.nat(19), by: fc.string({ minLength: 1 }) })
    fc.assert(
      fc.property(change, ({ at, by }) => {
        const book = bookOf(20).map((one, index) => (index === at ? { ...one, by: `${by}x` } : one))
        const verdict = verify(book, sha256)
        expect(verdict).toEqual({ ok: false, refusal: { line: at + 1, seq: at + 1, why: 'hash' } })
      }),
      { numRuns: 40 },
    )
  })

  it('shows an entry taken out as a gap, and one added as a gap', () => {
    const book = bookOf(5)
    const without = book.filter((one) => one.seq !== 3)
    expect(verify(without, sha256)).toMatchObject({ refusal: { line: 3, seq: 4, why: 'gap' } })
    const twice = [...book.slice(0, 2), ...book.slice(1)]
    expect(verify(twice, sha256)).toMatchObject({ refusal: { line: 3, seq: 2, why: 'gap' } })
  })

  it('calls a line that is no entry unreadable, also when it carries an extra field', () => {
    const [first] = bookOf(1)
    expect(verify(['nonsense'], sha256)).toMatchObject({ refusal: { why: 'unreadable' } })
    expect(verify([{ ...first, extra: 1 }], sha256)).toMatchObject({
      refusal: { line: 1, seq: 1, why: 'unreadable' },
    })
  })

  it('refuses to chain an entry out of turn', () => {
    expect(() => append(EMPTY_HEAD, entry(2), sha256)).toThrow(RangeError)
  })
})

describe('a personal text', () => {
  it('stands in the book as a digest that follows text and salt', () => {
    const salt = new Uint8Array(16).fill(7)
    const digest = textDigest(salt, 'Mara T.', sha256)
    expect(digest).toBe(toHex(sha256(new Uint8Array([...salt, ...Buffer.from('Mara T.')]))))
    expect(textDigest(salt, 'Mara S.', sha256)).not.toBe(digest)
    expect(textDigest(new Uint8Array(16), 'Mara T.', sha256)).not.toBe(digest)
  })
})
