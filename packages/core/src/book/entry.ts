/**
 * What one line of the book says: who did what, when, on which slip, with ids and figures only.
 * Personal text stands beside the book; the entry holds its salted digest, so that the text can be
 * withdrawn and the chain still holds. Leaves out hashing, which is `chain`.
 */
import { z } from 'zod'
import type { Json } from '../canon/canon.ts'

/** 64 lower-case hex digits: a SHA-256. */
export const digestSchema = z.string().regex(/^[0-9a-f]{64}$/)

/** The acts that are entered. A new kind of act is one more line here. */
export const BOOK_ACTS = [
  'shop.founded',
  'person.added',
  'person.changed',
  'session.begun',
  'session.refused',
  'session.ended',
  'token.made',
  'token.struck',
  'act.refused',
  'slip.opened',
  'slip.changed',
  'slip.state',
  'slip.noted',
  'slip.line',
  'slip.reading',
  'slip.reading-back',
  'slip.read',
  'rule.overruled',
  'package.carried',
  'house.changed',
  'copies.named',
  'family.taken',
  'plan.taken',
  'text.withdrawn',
  'archive.shelved',
  'archive.refused',
  'archive.failed',
  'archive.published',
  'archive.removed',
  'archive.restored',
  'catalogue.taken',
  'cable.moved',
  'cable.added',
  'cable.struck',
  'port.added',
  'port.struck',
  'run.started',
  'run.taken-up',
  'run.moved',
  'run.done-by-hand',
  'run.stop-asked',
  'run.stopped',
  'run.ended',
] as const
export type BookAct = (typeof BOOK_ACTS)[number]

/** Any JSON value. */
export const jsonSchema: z.ZodType<Json> = z.json()

/**
 * An entry without its hash. `seq` counts from 1 without a gap; `at` is the shop's clock, ISO 8601
 * UTC; `by` is a person's id or null when nobody was signed in; `texts` are the digests of personal
 * texts by what they are (a customer, a note). Acts are open to names this version does not know.
 */
export const entrySchema = z.strictObject({
  format: z.literal('plain-slate/book-entry@1'),
  seq: z.int().positive(),
  at: z.iso.datetime({ precision: 3 }),
  by: z.string().nullable(),
  act: z.string().min(1),
  slip: z.exactOptional(z.string()),
  facts: z.record(z.string(), jsonSchema),
  texts: z.exactOptional(z.record(z.string(), digestSchema)),
})
export type Entry = z.infer<typeof entrySchema>

/** An entry as it leaves the house: with the hash that ties it to the one before. */
export const hashedEntrySchema = entrySchema.extend({ hash: digestSchema })
export type HashedEntry = z.infer<typeof hashedEntrySchema>
