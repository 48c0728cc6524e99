/**
 * Entering something in the book: under the book's lock, chained to its head, in the same
 * transaction as the act itself. Personal texts are laid beside and tied by their salted digests.
 */
import { createHash, randomBytes } from 'node:crypto'
import type { BookAct, Entry, HashedEntry } from '@plain-slate/core'
import { append, isoOf, textDigest } from '@plain-slate/core'
import type { ShopClock } from '../base/workshop.ts'
import { insertEntry, insertText, lockHead, tieText } from '../tables/book.ts'
import type { Transaction } from '../tables/database.ts'
import { tell } from '../tables/news.ts'

const SALT_BYTES = 16

/** SHA-256 for core, which has none of its own. */
export const sha256 = (bytes: Uint8Array): Uint8Array => createHash('sha256').update(bytes).digest()

/** A personal text that was laid beside the book: its row's id and its digest. */
export type LaidText = { readonly id: string; readonly digest: string }

/** Lays a personal text of a slip beside the book under a fresh salt. */
export async function layText(trx: Transaction, slip: string, body: string): Promise<LaidText> {
  const salt = new Uint8Array(randomBytes(SALT_BYTES))
  const digest = textDigest(salt, body, sha256)
  return { id: await insertText(trx, { slip, salt, body, digest }), digest }
}

export type NewEntry = {
  readonly by: string | null
  readonly act: BookAct
  readonly facts: Entry['facts']
  readonly slip?: string
  readonly texts?: Readonly<Record<string, LaidText>>
}

/**
 * Appends one entry; answers it with its number and hash. Locking: takes the book's advisory lock to
 * the end of the transaction, so call it after every row the transaction changes is locked.
 */
export async function enter(
  workshop: { readonly clock: ShopClock },
  trx: Transaction,
  draft: NewEntry,
): Promise<HashedEntry> {
  const head = await lockHead(trx)
  const texts = Object.entries(draft.texts ?? {})
  const entry: Entry = {
    format: 'plain-slate/book-entry@1',
    seq: head.seq + 1,
    at: isoOf(await workshop.clock.now()),
    by: draft.by,
    act: draft.act,
    ...(draft.slip === undefined ? {} : { slip: draft.slip }),
    facts: draft.facts,
    ...(texts.length === 0
      ? {}
      : { texts: Object.fromEntries(texts.map(([name, laid]) => [name, laid.digest])) }),
  }
  const hashed = append(head, entry, sha256)
  await insertEntry(trx, hashed)
  for (const [name, laid] of texts) await tieText(trx, hashed.seq, name, laid.id)
  await tell(trx, 'book', String(hashed.seq), hashed.seq)
  return hashed
}
