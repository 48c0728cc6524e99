/**
 * Build ids of the three families as their makers count them: an order that agrees with the counting, how far two are
 * from each other, what was perhaps meant, and many of them sorted at once.
 */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { alder, fen } from '../testing/families.ts'
import { tarn } from '../testing/tarn.ts'
import { chances } from '../units/chances.ts'
import { distanceOf } from './distance.ts'
import type { BuildId, Grammar } from './grammar.ts'
import { orderBuilds, readBuild } from './grammar.ts'
import { nearBuilds } from './near.ts'
import { keyIn, sortBuilds } from './sorted.ts'

const two = (n: number) => String(n).padStart(2, '0')
const BASE32 = '0123456789ABCDEFGHJKMNPQRSTVWXYZ'
const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ'
/** The n-th build of each maker, counted as that counts. */
const COUNTED: readonly (readonly [string, Grammar, number, (n: number) => string])[] = [
  [
    'tarn',
    tarn.build,
    32 ** 3,
    (n) => `H2.${[n >> 10, (n >> 5) & 31, n & 31].map((at) => BASE32[at] ?? '').join('')}.r4`,
  ],
  [
    'alder',
    alder.build,
    20 * 52 * 10,
    (n) => {
      const [respin, week] = [n % 10, Math.floor(n / 10)]
      return `20-${two(20 + Math.floor(week / 52))}${two((week % 52) + 1)}.${respin}-HO`
    },
  ],
  [
    'fen',
    fen.build,
    20 * 26 * 24,
    (n) => {
      const [letter, fortnight] = [LETTERS[n % 24] ?? '', Math.floor(n / 24)]
      return `FEN-${two(20 + Math.floor(fortnight / 26))}.${two((fortnight % 26) + 1)}${letter}-S`
    },
  ],
]
function read(grammar: Grammar, text: string): BuildId {
  const built = readBuild(grammar, text)
  if (!built.ok) throw new Error(`${text} ${JSON.stringify(built.refusal)}`)
  return built.value
}

describe.each(COUNTED)('ids of %s', (_, grammar, most, idOf) => {
  const some = fc.integer({ min: 0, max: most - 1 })
  const order = (a: number, b: number) =>
    orderBuilds(grammar, read(grammar, idOf(a)), read(grammar, idOf(b)))

  it('stand in the order in which they are counted', () => {
    fc.assert(
      fc.property(some, some, (a, b) => {
        expect(order(a, b)).toBe(a === b ? 'same' : a < b ? 'older' : 'newer')
      }),
    )
  })

  it('have an order that is turned round with them, and goes on from one to the next', () => {
    const TURNED = { older: 'newer', newer: 'older', same: 'same', incomparable: 'incomparable' }
    fc.assert(
      fc.property(some, some, some, (a, b, c) => {
        expect(order(b, a)).toBe(TURNED[order(a, b)])
        if (order(a, b) === 'older' && order(b, c) === 'older') expect(order(a, c)).toBe('older')
      }),
    )
  })

  it('are sorted at once as one by one', () => {
    fc.assert(
      fc.property(fc.array(some, { maxLength: 40 }), (of) => {
        const sorted = sortBuilds(grammar, of.map(idOf))
        expect(sorted).toEqual([...of].sort((a, b) => a - b).map(idOf))
      }),
    )
  })

  it('are read by tables as they are one by one, whatever was typed', () => {
    const keyOf = keyIn(grammar)
    const random = chances(7)
    for (let round = 0; round < 500; round += 1) {
      const text = [...idOf(Math.floor(random() * most))]
      text[Math.floor(random() * text.length)] = BASE32[Math.floor(random() * 32)] ?? ''
      const typed = text.join('')
      const cut = readBuild({ ...grammar, notations: [] }, typed)
      expect([typed, keyOf(typed) !== undefined]).toEqual([typed, cut.ok])
    }
  })
})

describe('how far', () => {
  const far = (grammar: Grammar, a: string, b: string) => {
    const { order, segment, n, unit } = distanceOf(grammar, read(grammar, a), read(grammar, b))
    return [order, n, unit, segment]
  }

  it('is told in what the maker counts by', () => {
    expect(far(tarn.build, 'H2.0ZZ.r4', 'H2.102.r4')).toEqual(['newer', 3, 'count', 'counter'])
    expect(far(alder.build, '20-2634.0-HO', '20-2641.0-HO')).toEqual(['newer', 7, 'week', 'week'])
    expect(far(alder.build, '20-2634.1-HO', '20-2634.0-HO')).toEqual([
      ...['older', 1, 'count', 'respin'],
    ])
    expect(far(alder.build, '20-2652.0-HO', '21-2601.0-HO')).toEqual([
      ...['newer', 1, 'count', 'release'],
    ])
    expect(far(fen.build, 'FEN-26.21B-S', 'FEN-26.21B-S')).toEqual(['same', 0, 'none', ''])
  })

  it('goes over the end of a year, which has 52 weeks or 53', () => {
    expect(far(alder.build, '20-2551.0-HO', '20-2602.0-HO')).toEqual(['newer', 3, 'week', 'week'])
    expect(far(alder.build, '20-2652.0-HO', '20-2702.0-HO')).toEqual(['newer', 3, 'week', 'week'])
    expect(far(fen.build, 'FEN-25.26A-S', 'FEN-26.02A-S')).toEqual([
      ...['newer', 2, 'fortnight', 'fortnight'],
    ])
  })

  it('is no order where they are of two lines, and says which', () => {
    const apart = distanceOf(
      tarn.build,
      read(tarn.build, 'H2.104.r4'),
      read(tarn.build, 'H2.104.r5'),
    )
    expect(apart).toMatchObject({
      order: 'incomparable',
      segment: 'board',
      here: 'r4',
      there: 'r5',
    })
  })
})

describe('a mistake', () => {
  it('in a week that no year has is told where it stands', () => {
    expect(readBuild(alder.build, '20-2654.0-HO')).toMatchObject({
      refusal: { at: 3, segment: 'week', wanted: '01 to 53' },
    })
    expect(readBuild(fen.build, 'FEN-26.00B-S')).toMatchObject({
      refusal: { at: 7, segment: 'fortnight', wanted: '01 to 27' },
    })
    const { periods: _, ...free } = alder.build
    expect(readBuild(free, '20-2654.0-HO').ok).toBe(true)
  })

  it('offers what looks alike before what was otherwise mistyped, and takes none of it', () => {
    const known = ['H2.0ZC.r4', 'H2.0ZG.r4', 'H2.104.r4']
    expect(nearBuilds(tarn.build, 'H2.OZC.r4', known).map(({ build }) => build)).toEqual([
      'H2.0ZC.r4',
      'H2.0ZG.r4',
    ])
    expect(nearBuilds(tarn.build, 'H2.0CZ.r4', known)[0]?.build).toBe('H2.0ZC.r4')
    expect(nearBuilds(tarn.build, 'nothing', known)).toEqual([])
    const { lookAlikes: _, ...plain } = tarn.build
    const blind = { ...plain, lookAlikes: {} }
    expect(nearBuilds(blind, 'H2.OZC.r4', known)[0]?.changed).toBe(1)
  })
})

describe('another way of writing', () => {
  it('that the maker has too is taken as the id it is, and what is neither is not', () => {
    expect(readBuild(alder.build, '20/2634.0 HO')).toMatchObject({
      value: { text: '20-2634.0-HO' },
    })
    expect(readBuild(alder.build, '20/2634.0-HO').ok).toBe(false)
    const { notations: _, ...one } = alder.build
    expect(readBuild(one, '20/2634.0 HO').ok).toBe(false)
    expect(sortBuilds(alder.build, ['20-2641.0-HO', '20/2634.0 HO', 'odd'])).toEqual([
      '20/2634.0 HO',
      '20-2641.0-HO',
      'odd',
    ])
  })
})
