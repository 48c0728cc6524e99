import { describe, expect, it } from 'vitest'
import type { Command } from '../command/command.ts'
import type { JournalEntry } from './journal.ts'
import { ledgeWord, standingOf } from './standing.ts'

const put = (offset: number): Command => ({
  kind: 'put',
  mode: 'loader',
  partition: 'main',
  offset,
  size: 100,
  image: 'a',
})
const commands: readonly Command[] = [
  put(0),
  put(100),
  { kind: 'digest', mode: 'loader', partition: 'main', size: 200, image: 'a' },
  { kind: 'restart', to: 'normal', first: 'kept' },
]
const journal = (text: string): readonly JournalEntry[] =>
  [...text].map((letter, index) =>
    letter === 'i'
      ? { kind: 'intend', command: Math.floor(index / 2), epoch: 1 }
      : { kind: 'done', command: Math.floor(index / 2), evidence: { is: 'kept' } },
  )
const main = (text: string) => standingOf(commands, journal(text))[0]

describe('an interrupted run', () => {
  it('says what is new, what is old and what is in doubt', () => {
    expect(main('')).toMatchObject({ bytes: 200, kept: 0, doubt: 0 })
    expect(main('idi')).toMatchObject({ bytes: 200, kept: 100, doubt: 100, readBack: false })
    expect(main('ididi')).toMatchObject({ kept: 200, doubt: 0, readBack: false })
    expect(main('ididid')).toMatchObject({ kept: 200, readBack: true })
  })
})

describe("a port's word", () => {
  const doing = (command: Command | undefined, ownerless = false) =>
    ledgeWord({ run: { phase: { kind: 'doing' }, command, ownerless }, seen: 'writing' })

  it('is the mode of what hangs there while no run does', () => {
    expect(ledgeWord({ run: undefined, seen: undefined })).toBe('free')
    expect(ledgeWord({ run: undefined, seen: 'writing' })).toBe('writing')
    expect(ledgeWord({ run: undefined, seen: undefined, odd: true })).toBe('odd')
  })

  it('says whose hands are wanted, and that none are', () => {
    expect(doing({ kind: 'person', ask: 'charge', text: '' })).toBe('hands-now')
    expect(doing(commands[0])).toBe('hands-off')
    expect(doing(commands[3])).toBe('first-start')
  })

  it('is in doubt when the link is lost, or whoever drove the run is gone', () => {
    const lost = { phase: { kind: 'lost' }, command: commands[0], ownerless: false } as const
    expect(ledgeWord({ run: lost, seen: undefined })).toBe('in-doubt')
    expect(doing(commands[0], true)).toBe('in-doubt')
  })
})

describe('a part that is looked at again and not written', () => {
  it('is none of a run’s parts: nothing of it is new, or in doubt', () => {
    const left: Command = {
      kind: 'digest',
      mode: 'loader',
      partition: 'rescue',
      size: 8,
      image: 'r',
    }
    const put: Command = { ...left, kind: 'put', partition: 'main', offset: 0 }
    const names = (commands: readonly Command[]) =>
      standingOf(commands, []).map(({ partition }) => partition)
    expect(names([left, put])).toEqual(['main'])
    expect(names([left, { ...put, partition: 'rescue', image: 'r' }])).toEqual(['rescue'])
  })
})
