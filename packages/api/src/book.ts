/** The book: read, filtered, exported, checked. */
import { leastOf } from '@plain-slate/core'
import { z } from 'zod'
import { route } from './route.ts'
import { eventLineSchema } from './slips.ts'

export const bookQuerySchema = z.object({
  act: z.exactOptional(z.string().max(40)),
  slip: z.exactOptional(z.string().max(6)),
  by: z.exactOptional(z.uuid()),
  /** Entries before this one; for turning pages. */
  before: z.exactOptional(z.coerce.number().int().positive()),
})
export type BookQuery = z.infer<typeof bookQuerySchema>

/** How many entries a page of the book holds; older ones are asked for with `before`. */
export const BOOK_PAGE = 100

export const bookCheckSchema = z.object({
  at: z.iso.datetime({ precision: 3 }),
  entries: z.int(),
  head: z.string(),
  holds: z.boolean(),
  /** The first entry that does not hold, and why. */
  broken: z.object({ seq: z.int().nullable(), why: z.string() }).nullable(),
})
export type BookCheck = z.infer<typeof bookCheckSchema>

export const bookRoutes = {
  book: route({
    method: 'get',
    path: '/api/book',
    needs: leastOf('book.read'),
    summary: 'Entries, newest first',
    query: bookQuerySchema,
    answer: z.object({
      entries: z.array(eventLineSchema),
      total: z.int(),
      head: z.object({ seq: z.int(), hash: z.string() }),
      acts: z.array(z.string()),
      check: bookCheckSchema.nullable(),
    }),
  }),
  bookCheck: route({
    method: 'post',
    path: '/api/book/check',
    needs: leastOf('book.export'),
    summary: 'Walk the whole chain now',
    answer: bookCheckSchema,
  }),
  bookJsonl: route({
    method: 'get',
    path: '/api/book.jsonl',
    needs: leastOf('book.export'),
    secret: true,
    summary: 'The whole book as JSON Lines, as its hashes were made; no personal text',
    answers: 'jsonl',
  }),
  bookCsv: route({
    method: 'get',
    path: '/api/book.csv',
    needs: leastOf('book.export'),
    summary: 'The filtered book as CSV',
    query: bookQuerySchema,
    answers: 'csv',
  }),
}
