import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { reading } from '../testing/devices.ts'
import { tarn } from '../testing/tarn.ts'
import type { Reading } from './identity.ts'
import { identify, settled, valuesOf } from './identity.ts'

const model = (...readings: readonly Reading[]) => identify(tarn, readings).model

describe('a fact', () => {
  it('nobody claims is missing; one value claimed is settled, whoever says so', () => {
    expect(model()).toEqual({ kind: 'missing' })
    expect(model(reading('model', 'BRAK-H2', 'person'))).toMatchObject({
      kind: 'settled',
      value: 'BRAK-H2',
    })
  })

  it('on which label and link disagree is contradicted: 8 is not five times 2', () => {
    const swapped = model(reading('model', 'BRAK-H2'), reading('model', 'BRAK-H2K', 'label'))
    expect(swapped).toMatchObject({ kind: 'contradicted' })
    expect(valuesOf(swapped)).toEqual(['BRAK-H2', 'BRAK-H2K'])
  })

  it('settles when the loader’s screen says the same as the link: 13 is five times 2', () => {
    const again = model(
      reading('model', 'BRAK-H2'),
      reading('model', 'BRAK-H2', 'screen'),
      reading('model', 'BRAK-H2K', 'label'),
    )
    expect(again).toMatchObject({ kind: 'settled', value: 'BRAK-H2' })
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

  it('counts a source once, its newest reading standing', () => {
    const corrected = model(
      reading('model', 'BRAK-H1', 'label', 1),
      reading('model', 'BRAK-H2', 'label', 2),
    )
    expect(corrected).toMatchObject({
      kind: 'settled',
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
        const backwards = identify(tarn, [...readings].reverse()).board
        expect(valuesOf(backwards)).toEqual(valuesOf(identify(tarn, readings).board))
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
