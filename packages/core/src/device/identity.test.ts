import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { reading } from '../testing/devices.ts'
import { tarn } from '../testing/tarn.ts'
import { ms } from '../units/units.ts'
import type { Changed, Reading } from './identity.ts'
import {
  doubtedFacts,
  identify,
  isKnown,
  saysAsSeen,
  settled,
  toldOf,
  valuesOf,
} from './identity.ts'

const model = (...readings: readonly Reading[]) => identify(tarn, readings).model
const after = (writtenAt: number, ...readings: readonly Reading[]) =>
  identify(tarn, readings, { writtenAt: ms(writtenAt), startedAt: ms(writtenAt) })

describe('a fact of the board', () => {
  it('that a device changes by itself grows old; what its board bears does not', () => {
    const read = [reading('build', 'H2.0A1.r4'), reading('board', 'r4')]
    const kinds = (oldBefore: number) => {
      const { build, board } = identify(tarn, read, { oldBefore: ms(oldBefore) })
      return [build.kind, board.kind]
    }
    expect(kinds(1000)).toEqual(['settled', 'settled'])
    expect(kinds(1001)).toEqual(['stale', 'settled'])
  })

  it('nobody claims is missing; one that only a weak source claims is told, not settled', () => {
    expect(model()).toEqual({ kind: 'missing' })
    expect(model(reading('model', 'BRAK-H2', 'person'))).toMatchObject({
      kind: 'told',
      value: 'BRAK-H2',
    })
    expect(model(reading('model', 'BRAK-H2', 'screen'))).toMatchObject({ kind: 'settled' })
  })

  it('that is told is judged on where a mistake kills nobody, and nowhere else', () => {
    const identity = identify(tarn, [
      reading('board', 'r4', 'label'),
      reading('region', 'HI', 'label'),
    ])
    expect([settled(identity, 'board'), settled(identity, 'region')]).toEqual([undefined, 'HI'])
    expect(toldOf(identity, 'board')).toBe('r4')
  })

  it('that the fuses tell is settled by them; a label beside them tells of the housing', () => {
    const swapped = model(reading('model', 'BRAK-H2'), reading('model', 'BRAK-H2K', 'label'))
    expect(swapped).toMatchObject({ kind: 'settled', value: 'BRAK-H2', doubted: false })
  })

  it('is doubted where others of weight together say otherwise than the fuses', () => {
    const at = (...others: readonly Reading[]) =>
      doubtedFacts(identify(tarn, [reading('board', 'r4'), ...others]))
    expect(at(reading('board', 'r5', 'screen'))).toEqual(['board'])
    expect(at(reading('board', 'r5', 'label'), reading('board', 'r5', 'box'))).toEqual([])
    expect(
      at(
        reading('board', 'r5', 'label'),
        reading('board', 'r5', 'box'),
        reading('board', 'r5', 'person'),
      ),
    ).toEqual(['board'])
    expect(at(reading('board', 'r4', 'screen'))).toEqual([])
    const many = (['screen', 'settings', 'label', 'box'] as const).map((source) =>
      reading('board', 'r5', source),
    )
    expect(at(...many)).toEqual(['board'])
    expect(settled(identify(tarn, [reading('board', 'r4'), ...many]), 'board')).toBe('r4')
  })

  it('that is doubted stands as it was seen until something else is read of it', () => {
    const fused = reading('board', 'r4', 'link', 10)
    const screen = reading('board', 'r5', 'screen', 20)
    const seen = (...readings: readonly Reading[]) =>
      saysAsSeen(identify(tarn, readings), readings, ms(30))
    expect(seen(fused, screen)).toBe(true)
    expect(seen(fused, screen, reading('board', 'r4', 'link', 40))).toBe(true)
    expect(seen(fused, screen, reading('model', 'BRAK-H2', 'screen', 40))).toBe(true)
    expect(seen(fused, screen, reading('board', 'r5', 'screen', 40))).toBe(false)
    expect(seen(screen, reading('board', 'r4', 'link', 40))).toBe(false)
  })

  it('on which screen and settings disagree is contradicted: 5 is not five times 5', () => {
    const two = identify(tarn, [
      reading('model', 'BRAK-H2', 'screen'),
      reading('model', 'BRAK-H2K', 'settings'),
    ])
    expect(two.model).toMatchObject({ kind: 'contradicted' })
    expect(valuesOf(two, 'model')).toEqual(['BRAK-H2', 'BRAK-H2K'])
  })

  it('is never settled against another by weak sources alone, however many', () => {
    const weak = model(
      reading('model', 'BRAK-H2', 'label'),
      reading('model', 'BRAK-H2', 'box'),
      reading('model', 'BRAK-H2', 'earlier'),
      reading('model', 'BRAK-H2K', 'person'),
    )
    expect(weak.kind).toBe('contradicted')
  })

  it('is not judged on weak words at odds where a mistake kills, be they two or ten', () => {
    const at = (fact: 'board' | 'region', ...strong: readonly Reading[]) =>
      valuesOf(
        identify(tarn, [
          reading(fact, 'r4', 'label'),
          reading(fact, 'r5', 'box'),
          reading(fact, 'r6', 'person'),
          ...strong,
        ]),
        fact,
      )
    expect(at('board')).toEqual([])
    expect(at('region')).toEqual(['r4', 'r5', 'r6'])
    expect(at('board', reading('board', 'r4', 'screen'))).toContain('r4')
  })

  it('counts a source once, its newest reading standing', () => {
    const corrected = model(
      reading('model', 'BRAK-H1', 'label', 1),
      reading('model', 'BRAK-H2', 'label', 2),
    )
    expect(corrected).toMatchObject({
      kind: 'told',
      value: 'BRAK-H2',
      claims: [{ value: 'BRAK-H2', weight: 2, sources: ['label'] }],
    })
  })

  it('does not depend on the order in which readings came in', () => {
    const any = fc.array(
      fc.tuple(
        fc.constantFrom('link', 'screen', 'label', 'person', 'box' as const),
        fc.constantFrom('a', 'b', 'c'),
        fc.integer({ min: 1, max: 1000 }),
      ),
      { maxLength: 10 },
    )
    fc.assert(
      fc.property(any, (drafts) => {
        const times = new Set(drafts.map(([source, , at]) => `${source} ${at}`))
        fc.pre(times.size === drafts.length)
        const readings = drafts.map(([source, value, at]) =>
          reading('board', value, source as 'link', at),
        )
        const backwards = identify(tarn, [...readings].reverse())
        expect(valuesOf(backwards, 'board')).toEqual(valuesOf(identify(tarn, readings), 'board'))
      }),
    )
  })

  it('is not touched by readings of another', () => {
    const before = identify(tarn, [reading('model', 'BRAK-H2')])
    const after = identify(tarn, [reading('model', 'BRAK-H2'), reading('board', 'r5')])
    expect(after.model).toEqual(before.model)
    expect(settled(after, 'board')).toBe('r5')
  })
})

describe('a fact that changes', () => {
  it('goes by time: the newest reading of the strongest source stands', () => {
    const build = (...readings: readonly Reading[]) => identify(tarn, readings).build
    expect(
      build(reading('build', 'H2.0ZC.r4', 'link', 1), reading('build', 'H2.104.r4', 'link', 2)),
    ).toMatchObject({ kind: 'settled', value: 'H2.104.r4' })
    expect(
      build(reading('build', 'H2.0ZC.r4', 'link', 1), reading('build', 'H2.104.r4', 'person', 2)),
    ).toMatchObject({ kind: 'settled', value: 'H2.0ZC.r4' })
  })

  it('of charge goes by the newest reading, whoever made it', () => {
    const charge = (...readings: readonly Reading[]) => identify(tarn, readings).batteryPercent
    expect(
      charge(
        reading('batteryPercent', 12, 'settings', 1),
        reading('batteryPercent', 71, 'link', 2),
      ),
    ).toMatchObject({ kind: 'settled', value: 71 })
    expect(
      charge(
        reading('batteryPercent', 71, 'link', 1),
        reading('batteryPercent', 12, 'settings', 2),
      ),
    ).toMatchObject({ value: 12 })
  })

  it('of the data’s release outlives a write, and no start of what was written', () => {
    const read = [reading('release', 4, 'link', 1), reading('patchDate', '2026-06-01', 'link', 1)]
    const kinds = (changed: Changed) => {
      const { release, patchDate } = identify(tarn, read, changed)
      return [release.kind, patchDate.kind]
    }
    expect(kinds({ writtenAt: ms(5) })).toEqual(['settled', 'settled'])
    expect(kinds({ writtenAt: ms(5), startedAt: ms(5) })).toEqual(['stale', 'stale'])
    expect(kinds({ writtenAt: ms(5), startedAt: ms(0) })).toEqual(['settled', 'settled'])
  })

  it('is stale once something was written since, and what the board bears is not', () => {
    const readings = [reading('build', 'H2.0ZC.r4', 'link', 5), reading('board', 'r4', 'link', 5)]
    const written = after(6, ...readings)
    expect(written.build).toMatchObject({ kind: 'stale', claims: [{ value: 'H2.0ZC.r4' }] })
    expect([isKnown(written, 'build'), isKnown(written, 'board')]).toEqual([false, true])
    expect(after(4, ...readings).build).toMatchObject({ kind: 'settled' })
    expect(after(6, ...readings, reading('build', 'H2.104.r4', 'link', 7)).build).toMatchObject({
      kind: 'settled',
      value: 'H2.104.r4',
    })
  })

  it('that no write changes stays known after one', () => {
    const said = after(6, reading('batteryHealth', 'sound', 'person', 5))
    expect(settled(said, 'batteryHealth')).toBe('sound')
  })
})

describe('a floor', () => {
  it('is the highest that was ever read, and stale after a write until it is read again', () => {
    const floors = [reading('floor', 6, 'link', 1), reading('floor', 5, 'screen', 2)]
    expect(settled(identify(tarn, floors), 'floor')).toBe(6)
    expect(after(3, ...floors).floor).toMatchObject({ kind: 'stale' })
    expect(settled(after(3, ...floors, reading('floor', 5, 'link', 4)), 'floor')).toBe(6)
  })

  it('is not raised by a weak word', () => {
    const told = identify(tarn, [reading('floor', 5), reading('floor', 9, 'person', 2000)])
    expect(settled(told, 'floor')).toBe(5)
    expect(settled(identify(tarn, [reading('floor', 5, 'person')]), 'floor')).toBe(undefined)
  })
})
