import { describe, expect, it } from 'vitest'
import { tarn } from '../testing/tarn.ts'
import { waysTo } from './ways.ts'

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
