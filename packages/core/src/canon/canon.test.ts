import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { NotCanonical, canonical } from './canon.ts'
import type { Json } from './canon.ts'

describe('canonical JSON', () => {
  it('gives the example of RFC 8785, 3.2.2 and 3.2.3', () => {
    const value: Json = {
      /* The example's own number, which is meant to lose its last digits. */
      // eslint-disable-next-line no-loss-of-precision
      numbers: [333333333.33333329, 1e30, 4.5, 2e-3, 0.000000000000000000000000001],
      string: '\u20ac$\u000F\u000aA\'\u0042\u0022\u005c\\"/',
      literals: [null, true, false],
    }
    expect(canonical(value)).toBe(
      '{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27],' +
        '"string":"€$\\u000f\\nA\'B\\"\\\\\\\\\\"/"}',
    )
  })

  it('sorts members by UTF-16 code units (RFC 8785, 3.2.3)', () => {
    const sorted = canonical({ '\u20ac': 1, '\r': 2, '\ufb33': 3, '1': 4, '\u{1f600}': 5, ö: 6 })
    expect(sorted).toBe('{"\\r":2,"1":4,"ö":6,"€":1,"\u{1f600}":5,"\ufb33":3}')
  })

  it('does not depend on the order in which members were added', () => {
    const members = fc.array(fc.tuple(fc.string(), fc.integer()), { maxLength: 8 })
    fc.assert(
      fc.property(members, (pairs) => {
        const unique = [...new Map(pairs)]
        const backwards = Object.fromEntries([...unique].reverse())
        expect(canonical(backwards)).toBe(canonical(Object.fromEntries(unique)))
      }),
    )
  })

  it('reads back as the same value', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        const plain = JSON.parse(JSON.stringify(value)) as Json
        expect(JSON.parse(canonical(plain))).toEqual(plain)
      }),
    )
  })

  it('leaves undefined members out and refuses what JSON has no text for', () => {
    expect(canonical({ a: undefined, b: 1 })).toBe('{"b":1}')
    expect(() => canonical({ a: Number.NaN })).toThrow(NotCanonical)
    expect(() => canonical('\ud800')).toThrow(NotCanonical)
  })
})
