import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { isLegible, shownLegible } from './text.ts'

describe('text from outside', () => {
  it('with a NUL, another control character or half a surrogate pair is not legible', () => {
    for (const odd of ['a\u0000', '\u0007', '\u009b', '\ud800', 'x\udfff'])
      expect([odd, isLegible(odd), isLegible(shownLegible(odd))]).toEqual([odd, false, true])
    for (const plain of ['', 'H2.104.r4', 'é 😀', 'two\nlines\tand more'])
      expect(isLegible(plain)).toBe(true)
  })

  it('is shown as it is where it is legible on one line, and never equal to what it was where not', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) => {
        const oneLine = isLegible(text) && !/[\n\r\t]/u.test(text)
        expect(shownLegible(text) === text).toBe(oneLine)
      }),
    )
  })
})
