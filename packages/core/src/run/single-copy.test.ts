import { describe, expect, it } from 'vitest'
import type { Command } from '../command/command.ts'
import { fen } from '../testing/families.ts'
import { tarn } from '../testing/tarn.ts'
import type { JournalEntry } from './journal.ts'
import { singleCopyInDoubt } from './single-copy.ts'

const put = (partition: string, offset = 0) =>
  ({ kind: 'put', mode: 'loader', partition, offset, size: 4096, image: partition }) as const
const digest = (partition: string) =>
  ({ kind: 'digest', mode: 'loader', partition, size: 8192, image: partition }) as const
const intend = (command: number): JournalEntry => ({ kind: 'intend', command, epoch: 1 })
const done = (command: number): JournalEntry => ({
  kind: 'done',
  command,
  evidence: { is: 'kept' },
})
/** A journal up to a command that was begun, and whether it was done. */
const upTo = (last: number, over: boolean): readonly JournalEntry[] =>
  Array.from({ length: last + 1 }, (_, at) =>
    at < last || over ? [intend(at), done(at)] : [intend(at)],
  ).flat()

const COMMANDS: readonly Command[] = [
  put('loader'),
  put('loader', 4096),
  digest('loader'),
  put('main'),
]

describe('a single copy in doubt', () => {
  it('is a loader that is kept once, from its first piece until its own digest was the wanted one', () => {
    const at = (last: number, over: boolean) => singleCopyInDoubt(tarn, COMMANDS, upTo(last, over))
    expect(singleCopyInDoubt(tarn, COMMANDS, [])).toBeUndefined()
    expect([at(0, false), at(0, true), at(1, true), at(2, false)]).toEqual(
      Array.from({ length: 4 }, () => 'loader'),
    )
    expect([at(2, true), at(3, false), at(3, true)]).toEqual([undefined, undefined, undefined])
  })

  it('is no part that is kept twice, and none that is not needed to reach a writing mode', () => {
    const two = { ...tarn, keptOnce: [] }
    expect(singleCopyInDoubt(two, COMMANDS, upTo(0, false))).toBeUndefined()
    const commands = [put('loader_b'), put('main_b')]
    expect(singleCopyInDoubt(fen, commands, upTo(0, false))).toBeUndefined()
    expect(singleCopyInDoubt(tarn, [put('main')], upTo(0, false))).toBeUndefined()
  })

  it('is a lock that was told to turn and of which nothing was heard', () => {
    const lock: Command = { kind: 'lock', mode: 'loader', to: 'closed' }
    expect(singleCopyInDoubt(fen, [lock], upTo(0, false))).toBe('lock')
    expect(singleCopyInDoubt(fen, [lock], upTo(0, true))).toBeUndefined()
  })
})
