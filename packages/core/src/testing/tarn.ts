/** The tarn family as the demo holds it, for core's tests. */
import { readFileSync } from 'node:fs'
import { parse } from 'yaml'
import { familySchema } from '../family/file.ts'

const file = new URL('../../../../demo/families/tarn.yaml', import.meta.url)

export const tarn = familySchema.parse(parse(readFileSync(file, 'utf8')))
