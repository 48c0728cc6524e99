/** What is told of a run: its log in shop time, what is left of it, what the device should show. */
import type { Command, JournalEntry } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { readFamilies } from '../base/families.ts'
import type { RunRow } from '../tables/runs.ts'
import { leftOf, logOf, looksNow } from './told.ts'

const family = readFamilies(new URL('../../../../demo/families', import.meta.url).pathname).find(
  ({ id }) => id === 'tarn',
)
const put: Command = {
  kind: 'put',
  mode: 'loader',
  partition: 'main',
  offset: 0,
  size: 1000,
  image: 'i',
}
const WRITE = { kind: 'write', facts: { partition: 'main', piece: 1, pieces: 1, mib: 8 } } as const
const RESTART = { kind: 'restart', facts: { to: 'normal mode' } } as const
const step = (number: number, firstCommand: number, low: number, high: number) => ({
  number,
  firstCommand,
  ...(number === 1 ? WRITE : RESTART),
  seconds: { low, high },
  hands: false,
  worst: 'unaffected' as const,
  source: 'family' as const,
  n: 0,
})
const run = (more: Partial<RunRow> = {}) =>
  ({
    state: 'running',
    startedAt: '2026-10-15T14:46:00.000Z',
    commands: [put, { kind: 'restart', to: 'normal' }],
    steps: [step(1, 0, 300, 400), step(2, 1, 180, 360)],
    shown: { got: 250, next: 0 },
    ...more,
  }) as RunRow
const entries: readonly JournalEntry[] = [
  { kind: 'intend', command: 0, epoch: 1, at: 5000 },
  { kind: 'done', command: 0, evidence: { is: 'kept' }, at: 35_000 },
]

describe('the log of a run', () => {
  it('tells each thing done in shop time, with how long it took', () => {
    expect(logOf(run(), entries)).toEqual([
      {
        at: '2026-10-15T14:46:30.000Z',
        kind: 'write',
        facts: WRITE.facts,
        seconds: 30,
        evidence: { is: 'kept' },
      },
    ])
  })
  it('follows the start of the run, and tells nothing that was only intended', () => {
    const later = run({ startedAt: '2026-10-15T15:00:00.000Z' })
    expect(logOf(later, entries)[0]?.at).toBe('2026-10-15T15:00:30.000Z')
    expect(logOf(run(), entries.slice(0, 1))).toEqual([])
  })
  it('tells a step of several commands once, at its end, with all of its time', () => {
    const two: readonly JournalEntry[] = [
      ...entries,
      { kind: 'intend', command: 1, epoch: 1, at: 35_000 },
      { kind: 'done', command: 1, evidence: { is: 'told' }, at: 40_000 },
    ]
    const oneStep = run({ steps: run().steps.slice(0, 1) })
    const [line, ...more] = logOf(oneStep, two)
    expect([line?.seconds, line?.evidence, more]).toEqual([35, { is: 'told' }, []])
    expect(logOf(run(), two)).toHaveLength(2)
  })
  it('calls whoever gave a word by name, and leaves who is nobody of the shop as it was put down', () => {
    const by = (id: string, names: ReadonlyMap<string, string>) => {
      const evidence = { is: 'person', by: id } as const
      const said: JournalEntry = { kind: 'done', command: 0, evidence, at: 35_000 }
      return logOf(run(), [...entries.slice(0, 1), said], names)[0]?.evidence
    }
    const names = new Map([['p1', 'Una Breck']])
    expect(by('p1', names)).toEqual({ is: 'person', by: 'Una Breck' })
    expect(by('from the shell', names)).toEqual({ is: 'person', by: 'from the shell' })
    expect(by('p1', new Map([['p1', 'Una Hale']]))).toEqual({ is: 'person', by: 'Una Hale' })
  })
  it('knows no length where the journal holds no times', () => {
    const bare: readonly JournalEntry[] = [
      { kind: 'intend', command: 0, epoch: 1 },
      { kind: 'done', command: 0, evidence: { is: 'kept' } },
    ]
    expect(logOf(run(), bare)[0]?.seconds).toBe(null)
  })
})

describe('what is left of a run', () => {
  it('is the rest of the step under way and every step after it', () => {
    expect(leftOf(run(), 0, 1)).toEqual({ low: 300 * 0.75 + 180, high: 400 * 0.75 + 360 })
    expect(leftOf(run(), 1, 2)).toEqual({ low: 180, high: 360 })
  })
  it('is nothing once it has ended', () => {
    expect(leftOf(run({ state: 'ended' }), 1, 2)).toEqual({ low: 0, high: 0 })
  })
})

const LOADER = { id: 'loader', name: 'the loader', kind: 'writing' }
const NORMAL = { id: 'normal', name: 'normal mode', kind: 'system' }

describe('what the device should show', () => {
  it('is the look of the mode that its step needs, in the family’s words', () => {
    expect(looksNow(family, run(), undefined)).toEqual({
      mode: LOADER,
      says: 'a grey bar above six small lines',
    })
    const starting = run({ shown: { got: 0, next: 1 } as RunRow['shown'] })
    expect(looksNow(family, starting, undefined)).toEqual({
      mode: NORMAL,
      says: 'the start page',
    })
  })
  it('is not known without a family, and follows that family’s words', () => {
    expect(looksNow(undefined, run(), undefined)).toBe(null)
    const other = family && {
      ...family,
      modes: family.modes.map((mode) => ({ ...mode, looks: 'stripes' })),
    }
    expect(looksNow(other, run(), undefined)).toEqual({ mode: LOADER, says: 'stripes' })
  })
})
