import { describe, expect, it } from 'vitest'
import { bandOf } from './band.ts'

const usual = { low: 320, high: 410 }
const moving = { quiet: 0, limit: 20 }

describe('the pace band', () => {
  it('projects the end from the present rate, once there is one', () => {
    expect(bandOf(usual, 178, 0.49, moving).ends).toBeCloseTo(363.3, 0)
    expect(bandOf(usual, 178, 0.01, moving).ends).toBe(undefined)
    expect(bandOf(usual, 178, undefined, moving).ends).toBe(undefined)
  })

  it('says slow by where it will end, else by the time that passed', () => {
    expect(bandOf(usual, 178, 0.49, moving).word).toBe('normal')
    expect(bandOf(usual, 178, 0.4, moving).word).toBe('slow')
    expect(bandOf(usual, 411, undefined, moving).word).toBe('slow')
  })

  it('never calls stuck what moves, at half the speed or a tenth of it', () => {
    expect(bandOf(usual, 178, 0.2, moving).word).toBe('slow')
    expect(bandOf(usual, 178, 0.04, { quiet: 20, limit: 20 }).word).toBe('slow')
    expect(bandOf(usual, 40_000, undefined, moving).word).toBe('slow')
  })

  it('calls stuck what was silent for longer than it may be, however early', () => {
    expect(bandOf(usual, 178, 0.49, { quiet: 21, limit: 20 }).word).toBe('stuck')
    expect(bandOf(usual, 30, undefined, { quiet: 21, limit: 20 }).word).toBe('stuck')
    expect(bandOf(usual, 30, undefined, { quiet: 21, limit: 60 }).word).toBe('normal')
  })

  it('never calls a first start stuck: a loop is told by its returns', () => {
    expect(bandOf(usual, 40_000, undefined, { quiet: 40_000, limit: undefined }).word).toBe('slow')
  })

  it('follows the range it is held against, and not its low end', () => {
    expect(bandOf({ low: 1, high: 100 }, 120, undefined, moving).word).toBe('slow')
    expect(bandOf({ low: 90, high: 100 }, 120, undefined, moving).word).toBe('slow')
    expect(bandOf({ low: 1, high: 130 }, 120, undefined, moving).word).toBe('normal')
  })

  it('is drawn far enough for what passed', () => {
    expect(bandOf(usual, 2000, undefined, moving).drawnTo).toBeGreaterThan(2000)
  })
})
