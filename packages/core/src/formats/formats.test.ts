import { readFileSync, readdirSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { hashedEntrySchema } from '../book/entry.ts'
import { FORMATS } from './formats.ts'

const docs = new URL('../../../../docs/', import.meta.url)
const doc = (name: string) => readFileSync(new URL(name, docs), 'utf8')

describe('our own formats', () => {
  it.each(Object.entries(FORMATS))(
    '%s is published as the schema that parses it',
    (name, schema) => {
      expect(JSON.parse(doc(`formats/${name}.schema.json`))).toEqual(
        JSON.parse(JSON.stringify(z.toJSONSchema(schema))),
      )
    },
  )

  it('are all that is published', () => {
    const published = readdirSync(new URL('formats/', docs)).filter((name) =>
      name.endsWith('.json'),
    )
    expect(published.sort()).toEqual(
      Object.keys(FORMATS)
        .map((name) => `${name}.schema.json`)
        .sort(),
    )
  })

  it('read the examples that the documents give', () => {
    const examples = [...doc('book.md').matchAll(/```json\n([\s\S]*?)```/g)].map(([, text]) => text)
    expect(examples).toHaveLength(1)
    for (const text of examples)
      expect(() => hashedEntrySchema.parse(JSON.parse(text ?? ''))).not.toThrow()
  })
})
