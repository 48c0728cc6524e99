/** Walking the whole chain, and holding every text that still stands against its digest. */
import type { BookCheck } from '@plain-slate/api'
import type { Break, Head } from '@plain-slate/core'
import { EMPTY_HEAD, follow, isoOf, textDigest } from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import { listHeldTexts, streamBook } from '../tables/book.ts'
import type { HeldText } from '../tables/book.ts'
import { insertCheck } from '../tables/checks.ts'
import { sha256 } from './append.ts'

/** Checks the book from its first entry, keeps and answers what was found. */
export async function checkBook(workshop: Pick<Workshop, 'db' | 'clock'>): Promise<BookCheck> {
  const texts = new Map<number, HeldText[]>()
  for (const text of await listHeldTexts(workshop.db))
    texts.set(text.seq, [...(texts.get(text.seq) ?? []), text])

  let head: Head = EMPTY_HEAD
  let broken: { seq: number | null; why: string } | null = null
  for await (const entry of streamBook(workshop.db)) {
    const next = follow(head, entry, head.seq + 1, sha256)
    if (!next.ok) {
      broken = breakOf(next.refusal)
      break
    }
    if ((texts.get(entry.seq) ?? []).some((text) => !matches(text, entry.texts))) {
      broken = { seq: entry.seq, why: 'text' }
      break
    }
    head = next.value
  }
  const at = isoOf(await workshop.clock.now())
  const check = { at, entries: head.seq, head: head.hash, holds: broken === null, broken }
  await insertCheck(workshop.db, check)
  return check
}

const breakOf = (found: Break) => ({ seq: found.seq ?? null, why: found.why })

function matches(text: HeldText, digests: Readonly<Record<string, string>> | undefined): boolean {
  return textDigest(text.salt, text.body, sha256) === digests?.[text.name]
}
