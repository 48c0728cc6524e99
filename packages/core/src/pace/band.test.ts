import { describe, expect, it } from 'vitest'
import { SLOW_TIMES, bandOf } from './band.ts'

const usual = { low: 320, high: 410 }

describe('the pace band', () => {
  it('projects the end from the present rate, once there is one', () => {
    expect(bandOf(usual, 178, 0.49).ends).toBeCloseTo(363.3, 0)
    expect(bandOf(usual, 178, 0.01).ends).toBe(undefined)
    expect(bandOf(usual, 178, undefined).ends).toBe(undefined)
  })

  it('says normal, slow and stuck by where it will end, else by the time that passed', () => {
    expect(bandOf(usual, 178, 0.49).word).toBe('normal')
    expect(bandOf(usual, 178, 0.4).word).toBe('slow')
    expect(bandOf(usual, 178, 0.2).word).toBe('stuck')
    expect(bandOf(usual, 411, undefined).word).toBe('slow')
    expect(bandOf(usual, usual.high * SLOW_TIMES + 1, undefined).word).toBe('stuck')
  })

  it('follows the range it is held against, and not its low end', () => {
    expect(bandOf({ low: 1, high: 100 }, 120, undefined).word).toBe('slow')
    expect(bandOf({ low: 90, high: 100 }, 120, undefined).word).toBe('slow')
    expect(bandOf({ low: 1, high: 130 }, 120, undefined).word).toBe('normal')
  })

  it('is drawn far enough for what passed', () => {
    expect(bandOf(usual, 2000, undefined).drawnTo).toBeGreaterThan(2000)
  })
})
