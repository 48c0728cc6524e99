import { describe, expect, it } from 'vitest'
import type { Command } from '../command/command.ts'
import type { JournalEntry } from './journal.ts'
import { modeOf } from '../command/command.ts'
import { doneIn, secondsLeft } from './told.ts'

const put: Command = {
  kind: 'put',
  mode: 'loader',
  partition: 'main',
  offset: 0,
  size: 100,
  image: 'a',
}
const steps = [
  { number: 1, firstCommand: 0, seconds: { low: 10, high: 20 } },
  { number: 2, firstCommand: 2, seconds: { low: 100, high: 200 } },
  { number: 3, firstCommand: 3, seconds: { low: 5, high: 5 } },
]
const intend = (command: number, at: number): JournalEntry => ({
  kind: 'intend',
  command,
  epoch: 1,
  at,
})
const done = (command: number, at: number): JournalEntry => ({
  kind: 'done',
  command,
  evidence: { is: 'kept' },
  at,
})

describe('what is told of a run', () => {
  it('counts from the first time its device told, each thing under its step', () => {
    const journal = [intend(0, 500), done(0, 1500), intend(1, 1500), done(1, 4500), intend(2, 4500)]
    expect(
      doneIn(steps, journal).map(({ since, step, seconds }) => [since, step?.number, seconds]),
    ).toEqual([
      [1000, 1, 1],
      [4000, 1, 3],
    ])
  })

  it('has so long still to go: the rest of the piece by its bytes, and every step after', () => {
    expect(secondsLeft(steps, 2, { command: put, got: 25 })).toEqual({ low: 80, high: 155 })
    expect(secondsLeft(steps, 2, { command: undefined, got: 25 })).toEqual({ low: 105, high: 205 })
    expect(secondsLeft(steps, 3, { command: put, got: 100 })).toEqual({ low: 0, high: 0 })
  })

  it('says in which mode its device should be, where the command needs one', () => {
    expect([modeOf(put), modeOf({ kind: 'restart', to: 'normal' }), modeOf(undefined)]).toEqual([
      'loader',
      'normal',
      undefined,
    ])
  })
})
