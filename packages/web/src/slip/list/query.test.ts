import { describe, expect, it } from 'vitest'
import { readListQuery, sortedBy, writeListQuery } from './query.ts'

describe('the list’s address', () => {
  it('says only what is asked for, and reads back the same', () => {
    const query = readListQuery({ q: 'ferry', state: 'open', sort: 'due', x: '1' })
    expect(writeListQuery(query)).toEqual({ q: 'ferry', state: 'open', sort: 'due' })
    expect(readListQuery({ q: 'ferry', state: 'open', sort: 'due' })).toEqual(query)
    expect(writeListQuery(readListQuery({}))).toEqual({})
  })

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
