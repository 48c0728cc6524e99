/** The shelf: archives that were dropped, packages with what is proven of them. */
import { OUTSIDE, PACKAGE_STATES, leastOf } from '@plain-slate/core'
import { z } from 'zod'
import { oneLine } from './line.ts'
import { route } from './route.ts'

const moment = z.iso.datetime({ precision: 3 })
export const sha256Schema = z
  .string()
  .regex(/^[0-9a-f]{64}$/, 'a SHA-256: 64 hex digits, lower case')

/**
 * An archive: while it is read, `done` of `bytes`; refused, with entry, offset and rule; failed, when it
 * could not be read for a reason that is not its own. Names are escaped: no control characters.
 */
export const archiveSchema = z.object({
  id: z.string(),
  name: z.string(),
  sha256: z.string(),
  bytes: z.int(),
  done: z.int(),
  state: z.enum(['reading', 'whole', 'refused', 'failed']),
  refusal: z.object({ entry: z.string(), offset: z.int(), rule: z.string() }).nullable(),
  /** Entries that are refused by themselves, and how many there are in all. */
  refusedEntries: z.int(),
  entries: z.int(),
  /** Conditions that are said: no end mark, and what stands behind it. */
  endMark: z.boolean(),
  behind: z.object({ what: z.enum(['second-archive', 'bytes']), offset: z.int() }).nullable(),
  /** The package whose manifest lies in it, or why none could be read of it. */
  package: z.string().nullable(),
  trouble: z.string().nullable(),
  by: z.string().nullable(),
  at: moment,
  /** When it was taken off the shelf; it can be put back for a while. */
  removedAt: moment.nullable(),
})
export type Archive = z.infer<typeof archiveSchema>

/** One entry as it stands in the archive, with the rule that refuses it, if one does. */
export const entrySchema = z.object({
  n: z.int(),
  name: z.string(),
  offset: z.int(),
  size: z.int(),
  sha256: z.string(),
  refused: z.string().nullable(),
})
export type EntryShown = z.infer<typeof entrySchema>

export const proofClaimSchema = z.object({
  claim: z.enum(['volume', 'own', 'published', 'image', 'entries']),
  file: z.string(),
  partition: z.exactOptional(z.string()),
  held: z.enum(['holds', 'missing', 'contradicted']),
  found: z.string(),
  wanted: z.exactOptional(z.string()),
  /** Who outside says so, where it stands, when it was entered. */
  source: z.exactOptional(z.enum(OUTSIDE)),
  where: z.exactOptional(z.string()),
  at: z.exactOptional(z.string()),
})

export const packageRowSchema = z.object({
  /** What it is known by: its id and the beginning of its archive's digest. */
  key: z.string(),
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
  state: z.enum(PACKAGE_STATES),
  bytes: z.int(),
  scale: z.int(),
  /** Claims that hold, of all that are made of it. */
  held: z.int(),
  made: z.int(),
})
export type PackageRow = z.infer<typeof packageRowSchema>

export const packageSchema = packageRowSchema.extend({
  claims: z.array(proofClaimSchema),
  /** Its volumes that are here, and the archive that holds each. */
  volumes: z.array(z.object({ file: z.string(), sha256: z.string(), archive: z.string() })),
})

/** A depot's catalogue that was taken in, the newest of it. */
export const catalogueRowSchema = z.object({
  from: z.string(),
  number: z.int(),
  issued: z.string(),
  expires: z.string(),
  packages: z.int(),
})
export type CatalogueRow = z.infer<typeof catalogueRowSchema>

/** Packages on one page of the shelf. */
export const SHELF_PAGE = 60

export const shelfSchema = z.object({
  packages: z.array(packageRowSchema),
  /** How many of what was asked for are of each state, on all pages. */
  states: z.record(z.enum(PACKAGE_STATES), z.int()),
  archives: z.array(archiveSchema),
  catalogues: z.array(catalogueRowSchema),
})
export type Shelf = z.infer<typeof shelfSchema>

const byId = z.object({ id: z.uuid() })

export const shelfRoutes = {
  shelf: route({
    method: 'get',
    path: '/api/shelf',
    needs: leastOf('shelf.read'),
    secret: true,
    summary: 'Packages that are known, a page at a time; archives and catalogues',
    query: z.object({
      /** Words in title, id, build or a model. */
      find: oneLine(80).default(''),
      state: z.exactOptional(z.enum(PACKAGE_STATES)),
      after: z.coerce.number().int().min(0).max(1_000_000).default(0),
    }),
    answer: shelfSchema,
  }),
  catalogueTake: route({
    method: 'post',
    path: '/api/shelf/catalogues',
    needs: leastOf('shelf.add'),
    anyText: true,
    summary: 'Take in a depot’s signed catalogue: its text as the body',
    answer: catalogueRowSchema,
  }),
  shelfPackage: route({
    method: 'get',
    path: '/api/shelf/packages/{id}',
    needs: leastOf('shelf.read'),
    secret: true,
    summary: 'One package with what is proven of it',
    params: z.object({ id: z.string().min(1).max(140) }),
    answer: packageSchema,
  }),
  shelve: route({
    method: 'post',
    path: '/api/shelf/archives',
    needs: leastOf('shelf.add'),
    anyText: true,
    summary: 'Shelve an archive: its bytes as the body, its length declared',
    query: z.object({
      name: z.string().trim().min(1).max(255),
      /** A digest that came from outside the archive, who tells it, and where it stands. */
      sha256: z.exactOptional(sha256Schema),
      source: z.enum(OUTSIDE).default('person'),
      where: oneLine(200).default(''),
    }),
    answer: archiveSchema,
  }),
  archiveEntries: route({
    method: 'get',
    path: '/api/shelf/archives/{id}/entries',
    needs: leastOf('shelf.read'),
    secret: true,
    summary: 'Entries of an archive, a page at a time; refused ones alone when asked',
    params: byId,
    query: z.object({
      after: z.coerce.number().int().min(-1).default(-1),
      only: z.enum(['all', 'refused']).default('all'),
    }),
    answer: z.object({ entries: z.array(entrySchema), more: z.boolean() }),
  }),
  archiveRemove: route({
    method: 'post',
    path: '/api/shelf/archives/{id}/remove',
    needs: leastOf('shelf.add'),
    summary: 'Take an archive off the shelf; it can be put back for a while',
    params: byId,
    answer: archiveSchema,
  }),
  archiveRestore: route({
    method: 'post',
    path: '/api/shelf/archives/{id}/restore',
    needs: leastOf('shelf.add'),
    summary: 'Put an archive back that was taken off the shelf',
    params: byId,
    answer: archiveSchema,
  }),
  archiveReadAgain: route({
    method: 'post',
    path: '/api/shelf/archives/{id}/read',
    needs: leastOf('shelf.add'),
    summary: 'Read an archive again whose reading failed',
    params: byId,
    answer: archiveSchema,
  }),
  archivePublished: route({
    method: 'post',
    path: '/api/shelf/archives/{id}/published',
    needs: leastOf('shelf.add'),
    summary: 'Say what digest somebody outside publishes for an archive',
    params: byId,
    body: z.object({
      sha256: sha256Schema,
      source: z.enum(OUTSIDE),
      where: oneLine(200).min(1),
    }),
    answer: archiveSchema,
  }),
}
