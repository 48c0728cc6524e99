/** `npm run formats`: writes the JSON Schemas of our own formats, from the schemas that parse them. */
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { FORMATS } from '@plain-slate/core'
import { format, resolveConfig } from 'prettier'
import { z } from 'zod'
import { ROOT } from './bootstrap.mjs'

const folder = join(ROOT, 'docs', 'formats')
const house = await resolveConfig(join(ROOT, 'package.json'))
mkdirSync(folder, { recursive: true })
for (const [name, schema] of Object.entries(FORMATS)) {
  const text = JSON.stringify(z.toJSONSchema(schema))
  const shown = await format(text, { ...house, parser: 'json' })
  writeFileSync(join(folder, `${name}.schema.json`), shown)
}
