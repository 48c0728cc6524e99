import { describe, expect, it } from 'vitest'
import { HOLD_MS, heldShare } from './hold.ts'

describe('holding', () => {
  it('fills in its time, no sooner, and stays full', () => {
    expect(heldShare(undefined, 5000)).toBe(0)
    expect(heldShare(1000, 1000)).toBe(0)
    expect(heldShare(1000, 1000 + HOLD_MS - 1)).toBeLessThan(1)
    expect(heldShare(1000, 1000 + HOLD_MS)).toBe(1)
    expect(heldShare(1000, 99_000)).toBe(1)
  })
})
