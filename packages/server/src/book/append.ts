/**
 * Entering something in the book: under the book's lock, chained to its head, in the same
 * transaction as the act itself. Personal texts are laid beside and tied by their salted digests.
 */
import { createHash, randomBytes } from 'node:crypto'
import type { BookAct, Entry, HashedEntry } from '@plain-slate/core'
import { append, isoOf, textDigest } from '@plain-slate/core'
import type { ShopClock } from '../base/workshop.ts'
import { insertEntries, insertText, lockHead, tieText } from '../tables/book.ts'
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
  workshop: Clocked,
  trx: Transaction,
  draft: NewEntry,
): Promise<HashedEntry> {
  const [entered] = await enterAll(workshop, trx, [draft])
  if (entered === undefined) throw new Error('an entry was not entered')
  return entered
}

/** Appends entries of one act, each chained to the one before; whoever looks is told once. The same locking. */
export async function enterAll(
  workshop: Clocked,
  trx: Transaction,
  drafts: readonly NewEntry[],
): Promise<readonly HashedEntry[]> {
  if (drafts.length === 0) return []
  let head = await lockHead(trx)
  const at = isoOf(await workshop.clock.now())
  const chained = drafts.map((draft) => {
    const hashed = append(head, entryOf(draft, head.seq + 1, at), sha256)
    head = hashed
    return hashed
  })
  await insertEntries(trx, chained)
  for (const [index, { texts = {} }] of drafts.entries())
    for (const [name, laid] of Object.entries(texts))
      await tieText(trx, chained[index]?.seq ?? 0, name, laid.id)
  await tell(trx, 'book', String(head.seq), head.seq)
  return chained
}

type Clocked = { readonly clock: ShopClock }

function entryOf({ by, act, slip, facts, texts = {} }: NewEntry, seq: number, at: string): Entry {
  const laid = Object.entries(texts)
  return {
    format: 'plain-slate/book-entry@1',
    seq,
    at,
    by,
    act,
    ...(slip === undefined ? {} : { slip }),
    facts,
    ...(laid.length === 0
      ? {}
      : { texts: Object.fromEntries(laid.map(([name, { digest }]) => [name, digest])) }),
  }
}
