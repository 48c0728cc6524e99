/** `npm run formats`: writes the JSON Schemas of our own formats, from the schemas that parse them. */
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { FORMATS } from '@plain-slate/core'
import { format } from 'prettier'
import { z } from 'zod'
import { ROOT } from './bootstrap.mjs'

const folder = join(ROOT, 'docs', 'formats')
mkdirSync(folder, { recursive: true })
for (const [name, schema] of Object.entries(FORMATS)) {
  const text = JSON.stringify(z.toJSONSchema(schema))
  writeFileSync(join(folder, `${name}.schema.json`), await format(text, { parser: 'json' }))
}
