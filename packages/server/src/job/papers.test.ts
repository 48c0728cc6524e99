/** The slip and the bench card on paper say what is kept of the job; what goes on to others names nobody. */
import type { LineShown } from '@plain-slate/api'
import { identify, ms, standingLines } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import type { JobAt } from './job-at.ts'
import { benchCard, slipPaper } from './papers.ts'
import { unnamed } from './sheet.ts'

const DATE = '2026-10-15'
const AT = '2026-10-15T15:00:00.000Z'
const line = (topic: string, answer: string, note: string | null = null): LineShown => ({
  ...{ topic, answer, note, at: AT },
  by: 'Ilse Maro',
})
const read = (fact: 'serial' | 'model', value: string) => ({
  ...{ fact, value, at: ms(1), person: undefined, mode: 'loader' },
  source: 'link' as const,
})
const STEPS = [
  {
    kind: 'enter',
    facts: { to: 'the loader', say: 'Both triggers, then the cable.' },
    seconds: { low: 20, high: 30 },
  },
  { kind: 'restart', facts: { to: 'the loader' }, seconds: { low: 9, high: 9 } },
]
const job = (lines: readonly LineShown[] = [], more: object = {}): JobAt =>
  ({
    slip: {
      ...{ number: '0417', device: 'Brakken H2K', customer: 'Ferry line', intent: 'update' },
      stage: 'plan',
    },
    all: lines,
    lines: standingLines(lines.map(({ topic, answer }) => ({ topic, answer, at: 0 }))),
    identity: identify({ facts: {} }, [read('serial', 'TRN4490077F31'), read('model', 'BRAK-H2K')]),
    serial: 'TRN4490077F31',
    sight: { port: 'P2' },
    taken: { shown: { title: 'H2.104.r4', steps: STEPS, time: { low: 600, high: 900 } } },
    ...more,
  }) as unknown as JobAt
const textOf = ({ title, under, blocks, foot }: ReturnType<typeof slipPaper>) =>
  [title, under, ...blocks.flatMap((one) => [one.title, ...one.lines]), ...foot].join('\n')

describe('the slip on paper', () => {
  const lines = [line('survive.photos', 'must', 'her wedding'), line('accessory.sim', 'here')]
  it('says what was said under the headings of the page, with its notes, and to others without', () => {
    const house = textOf(slipPaper(job(lines), 'with', DATE))
    expect(house).toContain('Ferry line, printed 2026-10-15')
    expect(house).toContain('Photos and files: must survive (her wedding)')
    expect(house).toContain('SIM: here')
    expect(house).toContain('Plan: 2 steps')
    const others = textOf(slipPaper(job(lines), 'without', DATE))
    for (const personal of ['Ferry line', 'wedding', 'Ilse']) expect(others).not.toContain(personal)
    expect(others).toContain('Photos and files: must survive')
  })

  it('knows the device by what is settled, its serial by its end, and follows a reading', () => {
    const text = textOf(slipPaper(job(), 'with', DATE))
    expect(text).toContain('BRAK-H2K')
    expect(text).toContain('…7F31')
    expect(text).not.toContain('TRN4490077F31')
    const unread = { identity: identify({ facts: {} }, []) }
    expect(textOf(slipPaper(job([], unread), 'with', DATE))).not.toContain('BRAK-H2K')
  })

  it('has no plan where none was taken', () => {
    expect(textOf(slipPaper(job([], { taken: undefined }), 'with', DATE))).not.toContain('Plan:')
  })
})

describe('the bench card', () => {
  const card = (more: object = {}) => benchCard(job([], more), DATE)
  it('is the plan that was taken, step by step, with its chords, its code and nobody’s name', () => {
    const sheet = card()
    const text = sheet === undefined ? '' : textOf(sheet)
    expect(text).toContain('1. Into the loader: Both triggers, then the cable. (20 to 30 s)')
    expect(text).toContain('2. Restart into the loader (9 s)')
    expect(text).toContain('serial …7F31, port P2')
    expect(text).not.toContain('Ferry line')
    expect(sheet?.code).toBe('0417')
    expect(card({ sight: undefined })?.under).not.toContain('port')
  })

  it('is none before a plan was taken', () => {
    expect(card({ taken: undefined })).toBeUndefined()
  })
})

it('leaves the customer’s name off the sheet that is handed on', () => {
  const sheet = { title: 'Slip 0417', under: 'For Ferry line', blocks: [], foot: [] }
  expect(unnamed(sheet, 'with', DATE).under).toBe('For Ferry line')
  expect(unnamed(sheet, 'without', DATE).under).toBe('printed 2026-10-15')
})
