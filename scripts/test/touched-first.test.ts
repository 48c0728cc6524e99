/** What a change touches is tested first, and everything else as it was. */
import { describe, expect, it } from 'vitest'
import { touchedFirst } from './touched-first.ts'

const FILES = ['a/one.test.ts', 'b/two.test.ts', 'b/three.test.ts', 'c/four.test.ts']
const order = (...changed: readonly string[]) => touchedFirst(FILES, (path) => path, changed)

describe('the order of tests', () => {
  it('begins in the rooms where something was changed, and drops nothing', () => {
    expect(order('b/source.ts')).toEqual([
      'b/two.test.ts',
      'b/three.test.ts',
      'a/one.test.ts',
      'c/four.test.ts',
    ])
    expect(order('c/four.test.ts')[0]).toBe('c/four.test.ts')
    expect(order('elsewhere/x.ts')).toEqual(FILES)
    expect(order()).toEqual(FILES)
  })
})
