import { describe, expect, it } from 'vitest'
import { againSince, linesSince } from './again.ts'

const line = (topic: string, at: number) => ({ topic, at })

describe('another piece of work on a slip', () => {
  it('begins where somebody said so after a run ended, and not before', () => {
    const lines = [line('owner.proof', 1), line('again.plan', 50)]
    expect(againSince(lines, 40)).toBe(50)
    expect(againSince(lines, 60)).toBeUndefined()
    expect(againSince(lines, undefined)).toBeUndefined()
    expect(againSince([line('owner.proof', 90)], 40)).toBeUndefined()
    expect(againSince([...lines, line('again.plan', 80)], 70)).toBe(80)
  })

  it('has what was said at the counter, and nothing of the work that is done', () => {
    const before = [
      'owner.account',
      'survive.photos',
      'function.screen',
      'due.patch',
      'overrule.identity.region',
      'permit.service',
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
      'route.package',
    ])
    expect(linesSince(before, undefined)).toEqual(before)
  })
})
