import { describe, expect, it } from 'vitest'
import { isDeeper } from './depth.ts'

const bytes = (text: string) => new TextEncoder().encode(text)

describe('the depth of a JSON text', () => {
  it('is told without parsing it, brackets in texts not counted', () => {
    const nested = (levels: number) => '['.repeat(levels) + ']'.repeat(levels)
    expect([isDeeper(bytes(nested(64))), isDeeper(bytes(nested(65)))]).toEqual([false, true])
    expect(isDeeper(bytes(JSON.stringify({ a: '['.repeat(500), b: '\\"{{{{' })), 1)).toBe(false)
    expect(isDeeper(bytes('{"a":{"b":[1]}}'), 2)).toBe(true)
    expect(isDeeper(bytes('[1],[2],[3]'), 1)).toBe(false)
  })
})
