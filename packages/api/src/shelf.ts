/** The shelf: archives that were dropped, packages with what is proven of them. */
import { leastOf } from '@plain-slate/core'
import { z } from 'zod'
import { route } from './route.ts'

const moment = z.iso.datetime({ precision: 3 })
export const sha256Schema = z
  .string()
  .regex(/^[0-9a-f]{64}$/, 'a SHA-256: 64 hex digits, lower case')

/** An archive: while it is read, `done` of `bytes`; refused, with entry, offset and rule. */
export const archiveSchema = z.object({
  id: z.string(),
  name: z.string(),
  sha256: z.string(),
  bytes: z.int(),
  done: z.int(),
  state: z.enum(['reading', 'whole', 'refused']),
  refusal: z.object({ entry: z.string(), offset: z.int(), rule: z.string() }).nullable(),
  /** Entries that are refused by themselves, and how many there are in all. */
  refusedEntries: z.int(),
  entries: z.int(),
  /** The package whose manifest lies in it, or why none could be read of it. */
  package: z.string().nullable(),
  trouble: z.string().nullable(),
  by: z.string().nullable(),
  at: moment,
})
export type Archive = z.infer<typeof archiveSchema>

export const proofClaimSchema = z.object({
  claim: z.enum(['volume', 'published', 'image', 'entries']),
  file: z.string(),
  partition: z.exactOptional(z.string()),
  held: z.enum(['holds', 'missing', 'contradicted']),
  found: z.string(),
  wanted: z.exactOptional(z.string()),
})

export const packageRowSchema = z.object({
  id: z.string(),
  title: z.string(),
  family: z.string(),
  kind: z.string(),
  channel: z.string(),
  build: z.string(),
  release: z.int(),
  patchDate: z.string(),
  models: z.array(z.string()),
  boards: z.array(z.string()),
  state: z.enum(['proven', 'here', 'known', 'refuted']),
  bytes: z.int(),
  scale: z.int(),
  /** Claims that hold, of all that are made of it. */
  held: z.int(),
  made: z.int(),
})
export type PackageRow = z.infer<typeof packageRowSchema>

export const packageSchema = packageRowSchema.extend({ claims: z.array(proofClaimSchema) })

export const shelfSchema = z.object({
  packages: z.array(packageRowSchema),
  archives: z.array(archiveSchema),
})
export type Shelf = z.infer<typeof shelfSchema>

export const shelfRoutes = {
  shelf: route({
    method: 'get',
    path: '/api/shelf',
    needs: leastOf('shelf.read'),
    secret: true,
    summary: 'Packages and archives',
    answer: shelfSchema,
  }),
  shelfPackage: route({
    method: 'get',
    path: '/api/shelf/packages/{id}',
    needs: leastOf('shelf.read'),
    secret: true,
    summary: 'One package with what is proven of it',
    params: z.object({ id: z.string().min(1).max(120) }),
    answer: packageSchema,
  }),
  shelve: route({
    method: 'post',
    path: '/api/shelf/archives',
    needs: leastOf('shelf.add'),
    secret: true,
    summary: 'Shelve an archive: its bytes as the body, its length declared',
    query: z.object({
      name: z.string().trim().min(1).max(255),
      /** The digest that its maker publishes. */
      sha256: z.exactOptional(sha256Schema),
    }),
    answer: archiveSchema,
  }),
}
