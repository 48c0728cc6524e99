/** What is supposed, item by item, as the core takes it and as a slip takes it over. */
import { describe, expect, it } from 'vitest'
import type { Item } from './draft.ts'
import { THINGS_SUPPOSED, intentOf, linesOf, nameOf, supposedOf } from './draft.ts'
import { movedIn } from './what-if.ts'

const item = (name: string, value: string): Item => {
  const thing = THINGS_SUPPOSED.find((one) => nameOf(one) === name)
  if (thing === undefined) throw new Error(`nothing called ${name}`)
  return { thing, value }
}

describe('what is supposed', () => {
  it('is nothing at first, and each item after', () => {
    expect(supposedOf([])).toEqual({ facts: {}, lines: {}, house: {} })
    const items = [
      item('intent intent', 'downgrade'),
      item('data data', 'may-go'),
      item('fact loaderVersion', ' 7 '),
      item('fact board', ''),
      item('line consent.preview', 'yes'),
      item('house writes', 'all'),
    ]
    expect(supposedOf(items)).toEqual({
      intent: 'downgrade',
      keepData: false,
      facts: { loaderVersion: 7, board: null },
      lines: { 'consent.preview': 'yes' },
      house: { writes: 'all' },
    })
  })

  it('is taken over as lines and a wish; facts and what must survive are asked elsewhere', () => {
    const items = [
      item('fact floor', '9'),
      item('data data', 'must'),
      item('line consent.mark', 'no'),
      item('house way', 'install'),
    ]
    expect(linesOf(items)).toEqual([
      { topic: 'consent.mark', answer: 'no' },
      { topic: 'depart.way', answer: 'install' },
    ])
    expect(intentOf(items)).toBeUndefined()
    expect(intentOf([item('intent intent', 'update')])).toBe('update')
  })
})

it('routes are told as new, otherwise, the same or gone', () => {
  const told = (name: string, minutes = 9) => ({
    name,
    title: name,
    first: [],
    then: [],
    way: 'images' as const,
    verdict: 'fits' as const,
    minutes,
    data: 'kept' as const,
    misses: [],
  })
  const moved = movedIn({
    asIs: [told('a'), told('b'), told('c')],
    supposed: [told('a'), told('b', 12), told('d')],
  })
  expect(moved.routes.map(({ name, is }) => `${name} ${is}`)).toEqual([
    'a same',
    'b other',
    'd new',
  ])
  expect(moved.gone.map(({ name }) => name)).toEqual(['c'])
})
