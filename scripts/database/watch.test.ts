import { describe, expect, it } from 'vitest'
import type { Answering, DatabaseWatch } from './watch.ts'
import { WELL, answering, nextAct } from './watch.ts'

/** Signals and sentences over time, where it answers so every two seconds. */
function over(seconds: number, is: Answering): { signals: string[]; says: string[] } {
  let watch: DatabaseWatch = WELL
  const signals: string[] = []
  const says: string[] = []
  for (let at = 0; at <= seconds * 1000; at += 2000) {
    const next = nextAct(watch, is, at)
    watch = next.watch
    if (next.signal !== undefined) signals.push(`${at / 1000} ${next.signal}`)
    if (next.say !== undefined) says.push(next.say)
  }
  return { signals, says }
}

describe('a database that gives no connection', () => {
  it('is told by its sentence: one code stands for a start, a recovery and a shutdown', () => {
    expect(answering('57P03', 'the database system is shutting down')).toBe('shuts down')
    for (const one of ['starting up', 'in recovery mode', 'not yet accepting connections'])
      expect(answering('57P03', `the database system is ${one}`)).toBe('recovers')
    expect(answering('ECONNREFUSED', 'the database system is shutting down')).toBe('away')
  })

  it('and recovers is left alone for as long as that takes, and said once', () => {
    const { signals, says } = over(600, 'recovers')
    expect(signals).toEqual([])
    expect(says).toHaveLength(1)
    expect(over(4, 'recovers').says).toEqual([])
  })

  it('and shuts down is ended the fast way at once, and the hard way after a patience, said once', () => {
    const { signals, says } = over(60, 'shuts down')
    expect(signals).toEqual(['0 SIGINT', '20 SIGQUIT', '40 SIGKILL'])
    expect(says).toHaveLength(1)
  })

  it('since all are taken, lives; one that does not answer at all is said, and not touched', () => {
    expect(answering('53300', 'too many clients')).toBe('well')
    expect(over(110, 'away')).toEqual({ signals: [], says: [] })
    expect(over(600, 'away')).toMatchObject({ signals: [], says: [expect.any(String)] })
  })

  it('is counted anew once it answered well in between', () => {
    const shutting = nextAct(WELL, 'shuts down', 0).watch
    const well = nextAct(shutting, 'well', 10_000).watch
    expect(nextAct(well, 'shuts down', 30_000).signal).toBe('SIGINT')
  })
})
