import { describe, expect, it } from 'vitest'
import { alder } from '../testing/families.ts'
import { tarn } from '../testing/tarn.ts'
import type { Failing } from './remedies.ts'
import { remediesFor } from './remedies.ts'

const failing = (more: Partial<Failing> = {}): Failing => ({
  trouble: 'transfer',
  tried: new Set(),
  first: 'again',
  inDoubt: false,
  keepData: true,
  ...more,
})
const open = (more: Partial<Failing> = {}, family = tarn) =>
  remediesFor(family, failing(more))
    .filter(({ stands }) => stands === 'open')
    .map(({ does }) => does)

describe('what is tried when a job fails', () => {
  it('is by chance and cost, and one thing after the other', () => {
    const [first, second] = open()
    if (first === undefined || second === undefined) throw new Error('no remedies')
    expect(open({ tried: new Set([first]) })[0]).toBe(second)
    const all = remediesFor(tarn, failing({ tried: new Set([first]) }))
    expect(all.at(-1)).toMatchObject({ does: first, stands: 'tried' })
    const worth = all.filter(({ stands }) => stands === 'open').map((one) => one.worth)
    expect(worth).toEqual([...worth].sort((a, b) => b - a))
  })

  it('follows the family’s figures and nothing else of it', () => {
    const last = open().at(-1)
    const remedies = tarn.remedies.map((one) =>
      one.trouble === 'transfer' && one.does === last ? { ...one, chance: 99, minutes: 0.1 } : one,
    )
    expect(open({}, { ...tarn, remedies }).slice(0, 2)).toContain(last)
    expect(open({}, { ...tarn, version: tarn.version + 1, maker: 'Nobody' })).toEqual(open())
    expect(open({}, { ...tarn, remedies: [] })).toEqual([])
  })

  it('begins a failed transfer as the house does, and no other trouble', () => {
    expect([open()[0], open({ first: 'cable' })[0]]).toEqual(['again', 'cable'])
    expect(open({ first: 'cable', tried: new Set(['cable'] as const) })[0]).not.toBe('cable')
    expect(open({ trouble: 'loop', first: 'cable' })).toEqual(open({ trouble: 'loop' }))
  })

  it('keeps power and link while a single copy is in doubt', () => {
    const held = remediesFor(tarn, failing({ inDoubt: true })).filter((one) => one.held)
    expect(open({ inDoubt: true })).toEqual(
      open().filter((one) => ['again', 'cable', 'port'].includes(one)),
    )
    expect(new Set(held.map((one) => one.held))).toEqual(new Set(['in-doubt']))
  })

  it('resets nothing that must survive, and as the last where nothing must', () => {
    const kept = remediesFor(alder, failing({ trouble: 'loop' }))
    expect(kept.find(({ does }) => does === 'reset')).toMatchObject({ held: 'must-survive' })
    expect(open({ trouble: 'loop', keepData: false }, alder).at(-1)).toBe('reset')
  })
})
