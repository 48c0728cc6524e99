import { describe, expect, it } from 'vitest'
import { changedTo, readListQuery, sortedBy, writeListQuery } from './query.ts'

describe('the list’s address', () => {
  it('says only what is asked for, and reads back the same', () => {
    const query = readListQuery({ q: 'ferry', state: 'open', sort: 'due', x: '1' })
    expect(writeListQuery(query)).toEqual({ q: 'ferry', state: 'open', sort: 'due' })
    expect(readListQuery({ q: 'ferry', state: 'open', sort: 'due' })).toEqual(query)
    expect(writeListQuery(readListQuery({}))).toEqual({})
  })

  it('begins at its first page with every other search', () => {
    const third = readListQuery({ q: 'ferry', page: '3' })
    expect(changedTo(third, { state: 'open' })).toMatchObject({
      q: 'ferry',
      state: 'open',
      page: '',
    })
    expect(sortedBy(third, 'due').page).toBe('')
  })

  it.each(['0', '-1', 'abc', '1e9', '2.5'])(
    'takes page %s, typed by hand, for the first',
    (page) => {
      expect(readListQuery({ page }).page).toBe('')
      expect(readListQuery({ page: '2' }).page).toBe('2')
    },
  )

  it('sorts up, down, and then not at all', () => {
    const plain = readListQuery({})
    const up = sortedBy(plain, 'due')
    const down = sortedBy(up, 'due')
    expect([up.sort, up.dir]).toEqual(['due', ''])
    expect([down.sort, down.dir]).toEqual(['due', 'down'])
    expect(sortedBy(down, 'due')).toEqual(plain)
    expect(sortedBy(down, 'stage')).toMatchObject({ sort: 'stage', dir: '' })
  })
})
