import { describe, expect, it } from 'vitest'
import { againSince, linesSince } from './again.ts'

const line = (topic: string, at: number) => ({ topic, at })

describe('another piece of work on a slip', () => {
  it('begins where somebody said so after a run came to its end, and not before', () => {
    const lines = [line('owner.proof', 1), line('again.plan', 50)]
    expect(againSince(lines, { startedAt: 30, endedAt: 40 })).toBe(50)
    expect(againSince(lines, { startedAt: 30, endedAt: 60 })).toBeUndefined()
    expect(againSince(lines, { startedAt: 30, endedAt: undefined })).toBeUndefined()
    expect(againSince(lines, undefined)).toBeUndefined()
    expect(againSince([line('owner.proof', 90)], { startedAt: 30, endedAt: 40 })).toBeUndefined()
  })

  it('goes on while its own run does, and after that came to its end, until somebody begins another', () => {
    const lines = [line('again.plan', 50)]
    for (const endedAt of [undefined, 90])
      expect(againSince(lines, { startedAt: 70, endedAt })).toBe(50)
    const third = [...lines, line('again.plan', 95)]
    expect(againSince(third, { startedAt: 70, endedAt: 90 })).toBe(95)
  })

  it('has what was said at the counter, and nothing of the work that is done', () => {
    const before = [
      'owner.account',
      'survive.photos',
      'function.screen',
      'due.patch',
      'overrule.identity.region',
      'permit.service',
      'depart.relock',
      'route.package',
      'compare.unread',
      'ready.cable',
      'fate.wiped',
      'after.data',
      'decided.first-start',
      'undo.key',
      'back.told',
    ].map((topic, at) => line(topic, at))
    const after = line('route.package', 99)
    expect(linesSince([...before, after], 50).map(({ topic }) => topic)).toEqual([
      'owner.account',
      'survive.photos',
      'function.screen',
      'due.patch',
      'overrule.identity.region',
      'permit.service',
      'depart.relock',
      'route.package',
    ])
    expect(linesSince(before, undefined)).toEqual(before)
  })
})
