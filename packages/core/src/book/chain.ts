/**
 * The chain that shows whether the book was touched: hash = SHA-256(32 raw bytes of the previous
 * hash, zeros for the first, then the UTF-8 canonical entry without its hash). Reads entries and a
 * SHA-256 handed in; gives hashes and the first place that does not hold. A cut-off tail is
 * invisible to it: that is why the head is printed on every sheet that leaves the house.
 */
import { canonical } from '../canon/canon.ts'
import { refuse, ok } from '../result/result.ts'
import type { Result } from '../result/result.ts'
import { hashedEntrySchema } from './entry.ts'
import type { Entry, HashedEntry } from './entry.ts'

/** SHA-256 of the bytes, 32 bytes long. Core holds no hashing of its own. */
export type Sha256 = (bytes: Uint8Array) => Uint8Array

/** What the first entry is chained to. */
export const NO_HASH = '0'.repeat(64)

/** The hash of `entry` after `previous` (64 hex digits). */
export function hashEntry(previous: string, entry: Entry, sha256: Sha256): string {
  const text = new TextEncoder().encode(canonical(entry))
  const bytes = new Uint8Array(32 + text.length)
  bytes.set(fromHex(previous))
  bytes.set(text, 32)
  return toHex(sha256(bytes))
}

/** The salted digest that stands in the book for a personal text: SHA-256(salt, UTF-8 text). */
export function textDigest(salt: Uint8Array, text: string, sha256: Sha256): string {
  const body = new TextEncoder().encode(text)
  const bytes = new Uint8Array(salt.length + body.length)
  bytes.set(salt)
  bytes.set(body, salt.length)
  return toHex(sha256(bytes))
}

/** Where and why a chain breaks: the line counts from 1, `seq` is what stands there if readable. */
export type Break = {
  readonly line: number
  readonly seq: number | undefined
  readonly why: 'unreadable' | 'gap' | 'hash'
}

/** What a walk over the chain knows after each entry. */
export type Head = { readonly seq: number; readonly hash: string }
export const EMPTY_HEAD: Head = { seq: 0, hash: NO_HASH }

/** Takes one more entry onto a head, or says how it breaks. `line` is only for the report. */
export function follow(
  head: Head,
  raw: unknown,
  line: number,
  sha256: Sha256,
): Result<Head, Break> {
  const parsed = hashedEntrySchema.safeParse(raw)
  if (!parsed.success) return refuse({ line, seq: seqOf(raw), why: 'unreadable' })
  const { hash, ...entry } = parsed.data
  if (entry.seq !== head.seq + 1) return refuse({ line, seq: entry.seq, why: 'gap' })
  if (hashEntry(head.hash, entry, sha256) !== hash)
    return refuse({ line, seq: entry.seq, why: 'hash' })
  return ok({ seq: entry.seq, hash })
}

/** Walks a whole book from its first entry; the first break ends it. */
export function verify(entries: Iterable<unknown>, sha256: Sha256): Result<Head, Break> {
  let head = EMPTY_HEAD
  let line = 0
  for (const raw of entries) {
    line += 1
    const next = follow(head, raw, line, sha256)
    if (!next.ok) return next
    head = next.value
  }
  return ok(head)
}

/** Chains `entry` to `head`. Throws RangeError when its seq is not the next one: a caller's bug. */
export function append(head: Head, entry: Entry, sha256: Sha256): HashedEntry {
  if (entry.seq !== head.seq + 1) throw new RangeError(`entry ${entry.seq} after ${head.seq}`)
  return { ...entry, hash: hashEntry(head.hash, entry, sha256) }
}

function seqOf(raw: unknown): number | undefined {
  if (typeof raw !== 'object' || raw === null || !('seq' in raw)) return undefined
  return typeof raw.seq === 'number' ? raw.seq : undefined
}

/** Lower-case hex of bytes. */
export function toHex(bytes: Uint8Array): string {
  return Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('')
}

function fromHex(hex: string): Uint8Array {
  return Uint8Array.from(hex.match(/../g) ?? [], (pair) => Number.parseInt(pair, 16))
}
