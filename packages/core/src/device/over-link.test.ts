import { describe, expect, it } from 'vitest'
import { tarn } from '../testing/tarn.ts'
import type { DeviceFacts } from '../wire/facts.ts'
import { familyOf, readingsOf } from './over-link.ts'

const facts: DeviceFacts = {
  model: 'BRAK-H2K',
  board: 'r4',
  chipset: 'Slate 2',
  storageGb: 32,
  region: 'HI',
  carrier: 'O',
  serial: 'TRN4490077F31',
  mode: 'loader',
  loaderVersion: 6,
  floor: 5,
  bootLock: 'closed',
  batteryPercent: 71,
  outcome: 'normal',
  returns: 0,
  scale: 256,
}

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
