/** What somebody agreed to or signed holds until it ends, and each way in which it ends is told from the others. */
import { describe, expect, it } from 'vitest'
import { facts, linesOf, plan, SIGNED } from '../testing/ready.ts'
import { confirmationsOf, mayStart } from './ready.ts'
import { HOLDS_MS, lastAgainst, readingsOldBefore, wordEnd } from './agreed.ts'

const times = { plan: 100, against: undefined, now: 300 }
const word = (topic: string, at = 200) => ({ topic, at })

describe('a word for a plan', () => {
  it('holds for its plan, until something is said against the work, and for a while', () => {
    const cable = word('ready.cable')
    expect(wordEnd(cable, times)).toBe(undefined)
    expect(wordEnd(cable, { ...times, plan: 201 })).toBe('plan')
    expect(wordEnd(cable, { ...times, plan: undefined })).toBe('plan')
    expect(wordEnd(cable, { ...times, against: 201 })).toBe('against')
    expect(wordEnd(cable, { ...times, against: 199 })).toBe(undefined)
    expect(wordEnd(cable, { ...times, now: 200 + HOLDS_MS.signature })).toBe(undefined)
    expect(wordEnd(cable, { ...times, now: 201 + HOLDS_MS.signature })).toBe('old')
  })

  it('that is an owner’s holds longer; a copy hangs on no plan, and grows old', () => {
    const later = { ...times, now: 201 + HOLDS_MS.signature }
    expect(wordEnd(word('fate.wiped'), later)).toBe(undefined)
    expect(wordEnd(word('consent.mark'), { ...times, now: 201 + HOLDS_MS.consent })).toBe('old')
    const copy = word('ready.backup')
    expect(wordEnd(copy, { ...times, plan: 201, against: 201 })).toBe(undefined)
    expect(wordEnd(copy, { ...times, now: 201 + HOLDS_MS.copy })).toBe('old')
  })
})

it('what was last said against the work is a halt, or an owner’s no, whatever was said since', () => {
  const line = (topic: string, answer: string, at: number) => ({ topic, answer, at })
  expect(lastAgainst([line('owner.proof', 'shown', 1), line('after.screen', 'fails', 2)])).toBe(
    undefined,
  )
  const lines = [
    line('fate.wiped', 'no', 3),
    line('fate.wiped', 'yes', 4),
    line('condition.wet', 'wet', 5),
    line('condition.wet', 'dry', 6),
  ]
  expect([lastAgainst(lines.slice(0, 2)), lastAgainst(lines)]).toEqual([3, 5])
})

it('a wipe that was withdrawn and agreed to again has everything signed anew', () => {
  const wiping = { ...plan, fates: ['wiped'] as const }
  const before = { ...SIGNED, 'ready.restore': 'shop' }
  const lines = new Map([...linesOf(before, 200), ...linesOf({ 'fate.wiped': 'yes' }, 250)])
  const at = (against: number | undefined) => facts({ plan: wiping, lines, against })
  expect(mayStart(at(undefined), 'shell')).toEqual([])
  expect(mayStart(at(240), 'shell')).toEqual(
    expect.arrayContaining(['topic.ready.battery', 'topic.ready.cable', 'topic.ready.restore']),
  )
  const ended = confirmationsOf(at(240)).flatMap((one) =>
    one.ended === undefined ? [] : one.topic,
  )
  expect(ended).not.toContain('fate.wiped')
  expect(ended).not.toContain('ready.backup')
})

it('two months later nothing that was signed holds, nor a copy that opens', () => {
  const later = facts({ lines: linesOf(SIGNED), now: 60 * 24 * 3_600_000 })
  expect(mayStart(later, 'shell')).toEqual(Object.keys(SIGNED).map((topic) => `topic.${topic}`))
  expect(confirmationsOf(later).every(({ ended }) => ended === 'old')).toBe(true)
})

it('readings of what a device changes by itself are old after two weeks of the shop’s days', () => {
  const day = Date.parse('2026-10-15T00:00:00Z')
  expect(readingsOldBefore('2026-10-15')).toBe(day - 14 * 24 * 3_600_000)
})
