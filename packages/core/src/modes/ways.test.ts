import { describe, expect, it } from 'vitest'
import type { Family, Way } from '../family/profile.ts'
import { alder, fen } from '../testing/families.ts'
import { tarn } from '../testing/tarn.ts'
import { leadsOf, waysTo } from './ways.ts'

const path = (from: 'off' | 'normal' | 'loader' | 'rescue', permission: boolean) =>
  waysTo(tarn, from, 'loader', permission)?.map((way) => `${way.from} ${way.how} ${way.to}`)

describe('the way into the loader', () => {
  it('is a command where the link permission is given, else by way of off', () => {
    expect(path('normal', true)).toEqual(['normal command loader'])
    expect(path('normal', false)).toEqual(['normal keys off', 'off chord loader'])
  })

  it('from the rescue, where people land by mistake, is known too', () => {
    expect(path('rescue', false)).toEqual(['hang,loop,loader,rescue cell off', 'off chord loader'])
  })

  it('is none when one is there, and undefined when the family has none', () => {
    expect(path('loader', false)).toEqual([])
    expect(waysTo({ ...tarn, ways: [] }, 'off', 'loader', true)).toBeUndefined()
  })
})

describe('the leads of a run', () => {
  const leads = (family: Family) => leadsOf(family).map(({ from, to }) => `${from} to ${to}`)
  const changed = (change: (way: Way) => Partial<Way>): Family => ({
    ...alder,
    ways: alder.ways.map((way) => ({ ...way, ...change(way) })),
  })

  it('are what it is told over the link, out of no running system and into none', () => {
    expect(leads(alder)).toEqual(['loader to transfer', 'transfer to loader'])
    expect([leads(tarn), leads(fen)]).toEqual([[], []])
  })

  it('follow who goes the way, and not how long it takes', () => {
    const toRing = ({ to }: Way) => to === 'transfer'
    expect(leads(changed((way) => (toRing(way) ? { hands: true } : {})))).toEqual([
      'transfer to loader',
    ])
    expect(leads(changed((way) => (toRing(way) ? { needs: 'permission' } : {})))).toEqual([
      'transfer to loader',
    ])
    expect(leads(changed(() => ({ seconds: 99 })))).toEqual(leads(alder))
  })
})
