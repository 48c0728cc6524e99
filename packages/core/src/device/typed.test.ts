import { describe, expect, it } from 'vitest'
import { tarn } from '../testing/tarn.ts'
import { readTyped } from './typed.ts'

const read = (...asked: readonly ['floor' | 'build' | 'model' | 'board', string]) =>
  readTyped([tarn], ...asked)

describe('a typed value', () => {
  it('of a number is a whole one', () => {
    expect(read('floor', '5')).toEqual({ ok: true, value: 5 })
    for (const odd of ['5.5', '-1', 'five', '9'.repeat(30)])
      expect(read('floor', odd)).toMatchObject({ refusal: { why: 'number' } })
  })

  it('of a charge is no more than a whole one', () => {
    const percent = (typed: string) => readTyped([tarn], 'batteryPercent', typed)
    expect(percent('100')).toEqual({ ok: true, value: 100 })
    expect(percent('140')).toMatchObject({ refusal: { why: 'percent' } })
  })

  it('of a patch date is a day that there is, and that can have come', () => {
    const day = (typed: string, today = '2026-12-02') =>
      readTyped([tarn], 'patchDate', typed, { today })
    expect(day('2026-10-01')).toEqual({ ok: true, value: '2026-10-01' })
    expect(day('2026-12-05')).toEqual({ ok: true, value: '2026-12-05' })
    for (const none of ['2026-02-30', 'October', '2026-10'])
      expect(day(none)).toMatchObject({ refusal: { why: 'date' } })
    expect(day('2031-01-01')).toMatchObject({ refusal: { why: 'ahead' } })
    expect(day('2031-01-01', '2031-01-02')).toEqual({ ok: true, value: '2031-01-01' })
  })

  it('of the cell and of the account is one of a few words', () => {
    const word = (fact: 'batteryHealth' | 'accountLock', typed: string) =>
      readTyped([tarn], fact, typed)
    expect(word('batteryHealth', 'swollen')).toEqual({ ok: true, value: 'swollen' })
    expect(word('batteryHealth', 'fine')).toMatchObject({ refusal: { why: 'word' } })
    expect(word('accountLock', 'present')).toEqual({ ok: true, value: 'present' })
    expect(word('accountLock', 'yes')).toMatchObject({ refusal: { why: 'word' } })
  })

  it('of a build is read by the family’s grammar, and look-alikes are told', () => {
    expect(read('build', 'H2.104.r4')).toEqual({ ok: true, value: 'H2.104.r4' })
    expect(read('build', 'H2.1O4.r4')).toMatchObject({
      refusal: {
        why: 'grammar',
        perhaps: ['H2.104.r4'],
        breaks: { at: 4, segment: 'counter' },
      },
    })
    const known = new Map([['tarn', ['H2.105.r4']]])
    expect(readTyped([tarn], 'build', 'H2.1O4.r4', { known })).toMatchObject({
      refusal: { perhaps: ['H2.104.r4', 'H2.105.r4'] },
    })
  })

  it('of a model that nobody knows stands; one that looks like a known one is asked about', () => {
    expect(read('model', 'ZZ-1')).toEqual({ ok: true, value: 'ZZ-1' })
    expect(read('model', 'BRAK-HZK')).toMatchObject({ ok: true })
    expect(read('model', 'brak-h2k')).toMatchObject({
      refusal: { why: 'model', perhaps: ['BRAK-H2K'] },
    })
  })
})
