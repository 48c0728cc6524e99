/**
 * The families that are known: YAML files of a folder, read once at the start, and profiles that people took in, kept
 * in tables and read again when another server took one. Of an id the newest version stands. A file of the folder that
 * cannot be read stops the start with its name and the first place that is wrong.
 */
import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import type { Family } from '@plain-slate/core'
import { listFamilies } from '../tables/families.ts'
import type { Database } from '../tables/database.ts'
import { readFamily } from './family-file.ts'

/** Reads every family of the folder; an undefined folder holds none. */
export function readFamilies(folder: string | undefined): readonly Family[] {
  if (folder === undefined) return []
  return readdirSync(folder)
    .filter((name) => name.endsWith('.yaml'))
    .sort()
    .map((name) => readOne(join(folder, name)))
}

function readOne(path: string): Family {
  const read = readFamily(readFileSync(path, 'utf8'))
  if (read.ok) return read.value
  const [first] = read.refusal
  throw new Error(`${path}, line ${first?.line ?? 1}: ${first?.path ?? ''}: ${first?.says ?? ''}`)
}

export type KnownFamilies = {
  /** One list for as long as the server lives: what is in it changes with what is taken in. */
  readonly list: readonly Family[]
  /** Counts how often it changed: what is kept of a job rests on it. */
  readonly mark: () => number
  /** Reads anew what was taken in; answers what of it can no longer be read, as id and version. */
  readonly reload: (db: Database) => Promise<readonly string[]>
}

/** Those of the files first, then what was taken in. */
export function knownFamilies(files: readonly Family[]): KnownFamilies {
  const list = [...files]
  let changed = 0
  return {
    list,
    mark: () => changed,
    async reload(db) {
      const rows = await listFamilies(db)
      const read = rows.map((row) => ({ row, family: readFamily(row.body, { strict: false }) }))
      const taken = read.flatMap(({ family }) => (family.ok ? [family.value] : []))
      list.splice(0, list.length, ...newestOf([...files, ...taken]))
      changed += 1
      return read.flatMap(({ row, family }) => (family.ok ? [] : [`${row.id} ${row.version}`]))
    },
  }
}

/** The families with this one among them, as they would be. */
export const withFamily = (families: readonly Family[], family: Family): readonly Family[] =>
  newestOf([...families, family])

function newestOf(families: readonly Family[]): readonly Family[] {
  const newest = new Map<string, Family>()
  for (const family of families) {
    const known = newest.get(family.id)
    if (known === undefined || known.version < family.version) newest.set(family.id, family)
  }
  return [...newest.values()]
}
