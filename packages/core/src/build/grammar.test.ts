import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { BuildId, Grammar } from './grammar.ts'
import { orderBuilds, readBuild, ruler } from './grammar.ts'

/** Line, a base-32 counter without I, L, O, U, board line: "H2.0ZC.r4". */
const grammar: Grammar = {
  segments: [
    { kind: 'word', name: 'line', values: ['H1', 'H2'] },
    { kind: 'mark', text: '.' },
    { kind: 'counter', name: 'counter', alphabet: '0123456789ABCDEFGHJKMNPQRSTVWXYZ', width: 3 },
    { kind: 'mark', text: '.' },
    { kind: 'word', name: 'board', values: ['r4', 'r5'] },
  ],
  order: ['counter'],
  alike: ['line', 'board'],
  lookAlikes: { O: '0', o: '0', I: '1', l: '1', L: '1' },
}

function read(text: string): BuildId {
  const built = readBuild(grammar, text)
  if (!built.ok) throw new Error(JSON.stringify(built.refusal))
  return built.value
}
const order = (a: string, b: string) => orderBuilds(grammar, read(a), read(b))

describe('a build id', () => {
  it('is cut into its named segments', () => {
    expect(read(' H2.0ZC.r4 ').segments).toEqual([
      { name: 'line', text: 'H2' },
      { name: 'counter', text: '0ZC' },
      { name: 'board', text: 'r4' },
    ])
  })

  it('goes on at 100 after 0ZZ', () => {
    expect(order('H2.0ZZ.r4', 'H2.100.r4')).toBe('older')
    expect(order('H2.104.r4', 'H2.0ZC.r4')).toBe('newer')
    expect(order('H2.0ZC.r4', 'H2.0ZC.r4')).toBe('same')
  })

  it('of another line or board is not comparable', () => {
    expect(order('H2.104.r4', 'H2.0ZC.r5')).toBe('incomparable')
    expect(order('H1.104.r4', 'H2.104.r4')).toBe('incomparable')
  })

  it('mistyped says where, what may stand there, and what was perhaps meant', () => {
    expect(readBuild(grammar, 'H2.OZC.r4')).toMatchObject({
      refusal: { at: 3, segment: 'counter', perhaps: 'H2.0ZC.r4' },
    })
    expect(readBuild(grammar, 'H2.0ZC.r9')).toMatchObject({
      refusal: { at: 7, segment: 'board', wanted: 'r4, r5', perhaps: undefined },
    })
    expect(readBuild(grammar, 'H2.0ZC.r4x')).toMatchObject({ refusal: { at: 9, segment: 'end' } })
    expect(readBuild(grammar, '')).toMatchObject({ refusal: { at: 0, segment: 'line' } })
  })

  it('beside another shows the segment that decides', () => {
    const parts = ruler(grammar, read('H2.0ZC.r4'), read('H2.104.r4'))
    expect(parts.map((part) => part.mark)).toEqual(['same', 'deciding', 'same'])
    const foreign = ruler(grammar, read('H2.0ZC.r4'), read('H2.0ZC.r5'))
    expect(foreign.map((part) => part.mark)).toEqual(['same', 'same', 'differs'])
  })

  it('has an order that is total and agrees with counting', () => {
    const counter = fc.integer({ min: 0, max: 32 ** 3 - 1 })
    const alphabet = '0123456789ABCDEFGHJKMNPQRSTVWXYZ'
    const idOf = (n: number) =>
      `H2.${[n >> 10, (n >> 5) & 31, n & 31].map((digit) => alphabet[digit] ?? '').join('')}.r4`
    fc.assert(
      fc.property(counter, counter, (a, b) => {
        const expected = a === b ? 'same' : a < b ? 'older' : 'newer'
        expect(order(idOf(a), idOf(b))).toBe(expected)
      }),
    )
  })
})
