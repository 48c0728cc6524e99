import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Finding } from './verdict.ts'
import { VERDICTS, gravestFirst, isTakeable, worst } from './verdict.ts'

const finding = (more: Partial<Finding> = {}): Finding => ({
  rule: 'r',
  verdict: 'does-not-fit',
  code: 'c',
  facts: {},
  marks: [],
  remedy: undefined,
  missing: [],
  overruled: 'lead',
  ...more,
})

describe('verdicts', () => {
  it('combine to the worst, in any order, and nothing said fits', () => {
    expect(worst([])).toBe('fits')
    expect(worst(['fits', 'cannot-tell', 'fits-if'])).toBe('cannot-tell')
    const verdicts = fc.array(fc.constantFrom(...VERDICTS))
    fc.assert(
      fc.property(verdicts, verdicts, (a, b) => {
        expect(worst([...a, ...b])).toBe(worst([worst(b), worst(a)]))
      }),
    )
  })

  it('can be taken when they fit, at once or on a condition', () => {
    expect(VERDICTS.filter(isTakeable)).toEqual(['fits', 'fits-if'])
  })

  it('stand gravest first', () => {
    const findings = VERDICTS.map((verdict) => finding({ verdict }))
    expect(gravestFirst(findings).map(({ verdict }) => verdict)).toEqual([...VERDICTS].reverse())
  })
})
