import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { hashedEntrySchema } from './entry.ts'

const doc = (name: string) =>
  readFileSync(new URL(`../../../../docs/${name}`, import.meta.url), 'utf8')

describe('what the documents say of the book', () => {
  it('has examples that are entries', () => {
    const examples = [...doc('book.md').matchAll(/```json\n([\s\S]*?)```/g)].map(([, text]) => text)
    expect(examples).toHaveLength(1)
    for (const text of examples)
      expect(() => hashedEntrySchema.parse(JSON.parse(text ?? ''))).not.toThrow()
  })

  it('is the schema that parses', () => {
    expect(JSON.parse(doc('formats/book-entry.schema.json'))).toEqual(
      JSON.parse(JSON.stringify(z.toJSONSchema(hashedEntrySchema))),
    )
  })
})
