/** The families of the demo, read from their YAML: no aliases, no custom tags. */
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import type { Family } from '@plain-slate/core'
import { familySchema } from '@plain-slate/core'
import { parse } from 'yaml'

/** Reads a family. Throws for one that is none. */
export const readFamily = (path: string): Family =>
  familySchema.parse(parse(readFileSync(path, 'utf8'), { maxAliasCount: 0 }))

export const TARN_PATH = fileURLToPath(new URL('../families/tarn.yaml', import.meta.url))
export const tarnFamily = (): Family => readFamily(TARN_PATH)
