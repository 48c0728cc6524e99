import { describe, expect, it } from 'vitest'
import { modelClock } from './clock.ts'

const never = new AbortController().signal

describe('model time', () => {
  it('runs as many times faster as the pace says, and never goes back', () => {
    let real = 1000
    const clock = modelClock(20, 500, () => real)
    real = 1100
    expect(clock.now(0)).toBe(500 + 100 * 20)
    expect(clock.now(9_000)).toBe(9_000)
  })

  it('at pace 0 moves by what devices do alone, and waits for nothing', async () => {
    let real = 0
    const clock = modelClock(0, 500, () => real)
    real = 60_000
    expect(clock.now(700)).toBe(700)
    await clock.until(1e12, never)
  })

  it('stops waiting when the stream it waits for is over', async () => {
    const ended = new AbortController()
    const clock = modelClock(1, 0, () => 0)
    const waiting = clock.until(60_000, ended.signal)
    ended.abort()
    await waiting
  })
})
