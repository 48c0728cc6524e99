import { describe, expect, it } from 'vitest'
import { readOptions } from './options.ts'

describe('the start command', () => {
  it('has a usual port and folder, and a demo unless told', () => {
    expect(readOptions([], {})).toMatchObject({ port: undefined, empty: false })
    expect(readOptions(['--empty', '--port', '5000'], {})).toMatchObject({
      port: 5000,
      empty: true,
    })
  })

  it('has one bench unless it is told of two', () => {
    expect(readOptions([], {})).toMatchObject({ benches: 1 })
    expect(readOptions(['--benches', '2'], {})).toMatchObject({ benches: 2 })
  })

  it('takes a data folder from where the project lies, or an absolute one', () => {
    expect(readOptions(['--data', '/srv/slate'], {})).toMatchObject({ dataFolder: '/srv/slate' })
  })

  it('uses a database of one’s own when it is named', () => {
    const own = { DATABASE_URL: 'postgres://somebody@127.0.0.1/slate' }
    expect(readOptions([], own)).toMatchObject({ databaseUrl: own.DATABASE_URL })
  })

  it('says in a sentence what it does not understand', () => {
    expect(() => readOptions(['--port', '99999'], {})).toThrow('--port takes a number')
    expect(() => readOptions(['--benches', '3'], {})).toThrow('--benches takes 1 or 2')
    expect(() => readOptions(['--colour'], {})).toThrow('--help')
    expect(readOptions(['--help'], {})).toBe('help')
  })
})
