import { describe, expect, it } from 'vitest'
import { copyTrouble, isCopyDue } from './copies.ts'

const HOUR = 3_600_000
const whole = (at: number) => ({ named: 0, last: { at, whole: true }, good: at })
const failed = (at: number, good?: number) => ({ named: 0, last: { at, whole: false }, good })

describe('a copy of the shop', () => {
  it('is made as soon as a folder is named, then once a night', () => {
    expect(isCopyDue({ named: 0, last: undefined, good: undefined }, 1, 14)).toBe(true)
    const day = whole(0)
    expect(isCopyDue(day, 23 * HOUR, 1)).toBe(false)
    expect(isCopyDue(day, 24 * HOUR, 2)).toBe(true)
    expect(isCopyDue(whole(23 * HOUR), 24 * HOUR, 3)).toBe(false)
  })

  it('whose night was missed is made by day; one that failed is tried again two hours later', () => {
    expect(isCopyDue(whole(0), 27 * HOUR, 9)).toBe(false)
    expect(isCopyDue(whole(0), 29 * HOUR, 9)).toBe(true)
    expect(isCopyDue(failed(0), HOUR, 3)).toBe(false)
    expect(isCopyDue(failed(0), 2 * HOUR, 14)).toBe(true)
  })

  it('is said where the last failed, or none came out for a day and a half', () => {
    expect(copyTrouble(whole(0), 35 * HOUR)).toBe('none')
    expect(copyTrouble(whole(0), 37 * HOUR)).toBe('old')
    expect(copyTrouble(failed(10 * HOUR, 9 * HOUR), 10 * HOUR)).toBe('failed')
    expect(copyTrouble({ named: 0, last: undefined, good: undefined }, HOUR)).toBe('none')
    expect(copyTrouble({ named: 0, last: undefined, good: undefined }, 40 * HOUR)).toBe('old')
  })
})
