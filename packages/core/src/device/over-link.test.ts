import { describe, expect, it } from 'vitest'
import { facts0417 } from '../testing/devices.ts'
import { tarn } from '../testing/tarn.ts'
import { familyOf, readingsOf } from './over-link.ts'

const facts = facts0417()

describe('what a device says over the link', () => {
  it('is a reading a fact, with the mode it was said in; what was not said is none', () => {
    const read = readingsOf(facts)
    expect(read.find(({ fact }) => fact === 'board')).toMatchObject({
      value: 'r4',
      source: 'link',
      mode: 'loader',
    })
    expect(read.some(({ fact }) => fact === 'build')).toBe(false)
    expect(readingsOf({ ...facts, build: 'H2.0ZC.r4' })).toHaveLength(read.length + 1)
  })

  it('tells whose family it is by its model, and nobody’s where none names it', () => {
    expect(familyOf([tarn], facts)?.id).toBe('tarn')
    expect(familyOf([tarn], { model: 'ZZ-1' })).toBeUndefined()
  })
})
