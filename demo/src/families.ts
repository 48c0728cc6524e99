/** The families of the demo, read from their YAML: no aliases, no custom tags. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { Family } from '@plain-slate/core'
import { familySchema } from '@plain-slate/core'
import { parse } from 'yaml'

/** Reads a family. Throws for one that is none. */
export const readFamily = (path: string): Family =>
  familySchema.parse(parse(readFileSync(path, 'utf8'), { maxAliasCount: 0 }))

export const FAMILIES_FOLDER = fileURLToPath(new URL('../families', import.meta.url))
const known = new Map<string, Family>()
/** A family of the demo by its id: read once. */
export function familyNamed(id: string): Family {
  const family = known.get(id) ?? readFamily(join(FAMILIES_FOLDER, `${id}.yaml`))
  known.set(id, family)
  return family
}
export const tarnFamily = (): Family => familyNamed('tarn')
/** All three. */
export const demoFamilies = (): readonly Family[] => ['tarn', 'alder', 'fen'].map(familyNamed)
