/** House rules as they are typed: what can be read of a field is what is decided, and nothing else is. */
import { USUAL_HOUSE } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { draftOf, rulesOf } from './draft.ts'

describe('a draft of house rules', () => {
  it('says what stands, and comes to the same again', () => {
    expect(rulesOf(draftOf(USUAL_HOUSE))).toEqual(USUAL_HOUSE)
    const floor = { ...USUAL_HOUSE, batteryFloor: 70, writes: 'all' as const }
    expect(rulesOf(draftOf(floor))).toEqual(floor)
  })

  it('reads regions apart by commas or blanks, in capitals', () => {
    const draft = { ...draftOf(), regions: ' hi ,ex  ml' }
    expect(rulesOf(draft)?.lawfulRegions).toEqual(['HI', 'EX', 'ML'])
    expect(rulesOf({ ...draft, regions: ' ' })?.lawfulRegions).toEqual([])
  })

  it('is none while a figure is none, or more than may be', () => {
    const usual = draftOf()
    for (const margin of ['', 'ten', '-3', '61', '1.5'])
      expect(rulesOf({ ...usual, margin }), margin).toBeUndefined()
    expect(rulesOf({ ...usual, hands: { ...usual.hands, cable: 'x' } })).toBeUndefined()
    expect(rulesOf({ ...usual, fixed: true, floor: '101' })).toBeUndefined()
    /* A floor that is not chosen is not asked. */
    expect(rulesOf({ ...usual, fixed: false, floor: '101' })?.batteryFloor).toBeNull()
  })
})
