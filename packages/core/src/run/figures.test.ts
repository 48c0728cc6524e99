import { describe, expect, it } from 'vitest'
import type { Command } from '../command/command.ts'
import { OWN_LEAST } from '../pace/pace.ts'
import type { JournalEntry } from './journal.ts'
import { measuredIn, ownFigures, secondsOf } from './figures.ts'

const MIB = 1024 * 1024
const put: Command = {
  kind: 'put',
  mode: 'loader',
  partition: 'main',
  offset: 0,
  size: MIB,
  image: 'i',
}
const pair = (command: number, from: number, to: number): readonly JournalEntry[] => [
  { kind: 'intend', command, epoch: 1, at: from },
  { kind: 'done', command, evidence: { is: 'kept' }, at: to },
]
const run = (
  journal: readonly JournalEntry[],
  { first = 'kept', ...more }: { readonly first?: 'kept' | 'wiped'; readonly scale?: number } = {},
) => ({
  commands: [
    put,
    { kind: 'restart', to: 'loader' } as const,
    { kind: 'restart', to: 'normal', first } as const,
  ],
  journal,
  scale: 256,
  ...more,
})

describe('what a run tells of pace', () => {
  it('is MiB a second for pieces at model size, seconds for restarts', () => {
    const journal = [...pair(0, 0, 25_600), ...pair(1, 30_000, 41_000), ...pair(2, 50_000, 250_000)]
    expect(measuredIn(run(journal))).toEqual([
      { key: 'write', value: 10, partition: 'main' },
      { key: 'restart', value: 11, partition: undefined },
      { key: 'first-start', value: 200, partition: undefined },
    ])
    expect(measuredIn(run(journal, { scale: 1 }))[0]?.value).toBeCloseTo(10 / 256)
    expect(measuredIn(run(journal, { first: 'wiped' })).at(-1)?.key).toBe('first-start-wiped')
  })

  it('counts from the last intention, and leaves out what has no times or was not done', () => {
    const [intend] = pair(0, 1000, 0)
    expect(secondsOf([...(intend ? [intend] : []), ...pair(0, 5000, 9000)]).get(0)).toBe(4)
    expect(secondsOf([{ kind: 'intend', command: 0, epoch: 1 }]).size).toBe(0)
  })
})

describe('own figures', () => {
  const measured = (values: readonly number[]) =>
    values.map((value) => ({ key: 'write', value, partition: 'main' }) as const)

  it('are the middle eight of ten', () => {
    const values = [1, 9, 9.2, 9.4, 9.6, 9.8, 10, 10.2, 10.4, 90]
    expect(ownFigures(measured(values)).write).toEqual({ n: 10, low: 9, high: 10.4 })
  })

  it('say how many they rest on, so that a few are not taken', () => {
    expect(ownFigures(measured([9])).write?.n).toBeLessThan(OWN_LEAST)
    expect(ownFigures([])).toEqual({})
  })
})
