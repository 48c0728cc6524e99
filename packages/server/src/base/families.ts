/**
 * Families, parsed once at the start from YAML files of a folder: no aliases, no custom tags, bounded in
 * size. A file that cannot be read stops the start with its name and the first place that is wrong.
 */
import { readFileSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import type { Family } from '@plain-slate/core'
import { familySchema } from '@plain-slate/core'
import { parse } from 'yaml'

const FILE_BYTES = 1024 * 1024

/** Reads every family of the folder; an undefined folder holds none. */
export function readFamilies(folder: string | undefined): readonly Family[] {
  if (folder === undefined) return []
  return readdirSync(folder)
    .filter((name) => name.endsWith('.yaml'))
    .sort()
    .map((name) => readOne(join(folder, name)))
}

function readOne(path: string): Family {
  if (statSync(path).size > FILE_BYTES)
    throw new Error(`${path} is larger than ${FILE_BYTES} bytes`)
  const parsed = familySchema.safeParse(
    parse(readFileSync(path, 'utf8'), { maxAliasCount: 0, customTags: [] }),
  )
  if (parsed.success) return parsed.data
  const [issue] = parsed.error.issues
  throw new Error(`${path}: ${issue?.path.join('.') ?? ''}: ${issue?.message ?? ''}`)
}
