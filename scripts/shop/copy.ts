/**
 * What a copy of a shop is: a folder with the database as Debian's own tool dumps it, the vault by digest, families, trust
 * and benches; the secrets apart, in a folder that only their owner reads. `copy.json` is written last: a copy without it
 * is none.
 */
import { existsSync, readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { z } from 'zod'
import { CopyFailed } from './fault.ts'

export const copySchema = z.object({
  format: z.literal('plain-slate/copy@1'),
  /** Real time, ISO 8601. */
  at: z.iso.datetime(),
  shop: z.string(),
  /** Which shop it is of: two that came of one have each their own. */
  id: z.string(),
  kind: z.enum(['demo', 'empty']),
  /** Of the program that made it, and of PostgreSQL. */
  version: z.string(),
  postgres: z.string(),
  /** The book as it was read back from the copy. */
  book: z.object({ entries: z.int(), head: z.string() }),
  /** Files of the vault that the database names, and their bytes. */
  vault: z.object({
    files: z.int(),
    bytes: z.int(),
    copied: z.int(),
    /** Archives whose bytes are gone or are not what they were: the shop lacks them, and so does its copy. */
    lacking: z.array(z.object({ sha256: z.string(), name: z.string() })),
  }),
})
export type Copy = z.infer<typeof copySchema>

export const DUMP = 'database.dump'
export const SECRETS = 'secrets'
/** Whole folders that go along, and single files, where they are there. */
export const FOLDERS = ['families', 'trust'] as const
export const FILES = ['own-ports.json', 'bench.json', 'bench-back.json'] as const
export const SECRET_FILES = [
  'superuser.secret',
  'application.secret',
  'cookie.secret',
  'bench.secret',
  'link.secret',
] as const

/** What a copy is made of: a folder with anything else in it is somebody else's. */
const OWN_NAMES: readonly string[] = [
  'copy.json',
  DUMP,
  `${DUMP}.new`,
  'vault',
  SECRETS,
  ...FOLDERS,
  ...FILES,
]

/** Throws CopyFailed where a folder is not empty and holds no copy of this very shop, whole or begun. */
export function seePlaceForCopy(folder: string, id: string): void {
  if (!existsSync(folder)) return
  const other = readdirSync(folder).find((name) => !OWN_NAMES.includes(name))
  if (other !== undefined) throw new CopyFailed('other-things', { folder, name: other })
  if (!existsSync(join(folder, 'copy.json'))) return
  const { shop, id: held, at } = readCopy(folder)
  if (held !== id) throw new CopyFailed('other-shop', { folder, shop, at })
}

/** The account of a copy. Throws CopyFailed where the folder is none, or of a newer program. */
export function readCopy(folder: string): Copy {
  const file = join(folder, 'copy.json')
  if (!existsSync(file)) throw new CopyFailed('no-account', { folder })
  const read = copySchema.safeParse(jsonIn(file))
  if (read.success) return read.data
  throw new CopyFailed('unread-account', { file })
}

function jsonIn(file: string): unknown {
  try {
    return JSON.parse(readFileSync(file, 'utf8'))
  } catch {
    return undefined
  }
}
