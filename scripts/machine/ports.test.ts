import { describe, expect, it } from 'vitest'
import { freePort, isBlocked, isFree } from './ports.ts'

describe('a port', () => {
  it('that browsers refuse is known before anything is served there; a free one is none', async () => {
    expect(await isBlocked(4190)).toBe(true)
    const free = await freePort()
    expect([await isBlocked(free), await isFree(free)]).toEqual([false, true])
  })
})
