/** The customer's sheet says what was done from what is kept of the job, and bears the head of the book. */
import type { LineShown } from '@plain-slate/api'
import { standingLines } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { PATCH_LOOK_DAYS } from '../shop/rules.ts'
import type { JobAt } from './load.ts'
import { nextPatch } from './proof.ts'
import { drawSheet, sheetBlocks } from './sheet.ts'

const HEAD = { seq: 588, hash: 'ab'.repeat(32) }
const DATE = '2026-10-15'
const line = (topic: string, answer: string): LineShown => ({
  topic,
  answer,
  note: null,
  by: 'Ilse Maro',
  at: '2026-10-15T15:00:00.000Z',
})
const LINES = [
  line('tally.before', '214 4096 opens'),
  line('tally.after', '214 4096 opens'),
  line('after.screen', 'works'),
  line('back.sim', 'done'),
]

function job(more: { lines?: readonly LineShown[]; floor?: number; state?: string } = {}): JobAt {
  const all = more.lines ?? LINES
  return {
    slip: { number: '0417', device: 'Brakken H2K', customer: 'Ferry line, handheld 14' },
    all,
    lines: standingLines(all.map(({ topic, answer }) => ({ topic, answer, at: 0 }))),
    sight: undefined,
    device: undefined,
    taken: {
      basis: { 'fact.build': 'H2.0ZC.r4', 'fact.floor': String(more.floor ?? 5) },
      shown: {
        findings: [],
        fates: [
          {
            item: 'tickets',
            name: 'stored tickets',
            partition: 'customer',
            fate: 'kept',
            why: 'untouched',
          },
        ],
      },
    },
    run: {
      state: more.state ?? 'ended',
      endedAt: '2026-10-15T14:58:00.000Z',
      plan: {
        expected: { build: 'H2.104.r4', release: 5, loaderVersion: 7, floor: 6 },
        packages: [{ manifest: { patchDate: '2026-10-01' } }],
      },
    },
  } as unknown as JobAt
}
const sheet = (more: Parameters<typeof job>[0] = {}) => sheetBlocks(job(more), HEAD, DATE)
const text = (more: Parameters<typeof job>[0] = {}) =>
  sheet(more)
    .blocks.flatMap(({ lines }) => lines)
    .join('\n')

describe('the customer’s sheet', () => {
  it('names slip, device, customer and day', () => {
    expect([sheet().title, sheet().under]).toEqual([
      'Slip 0417: Brakken H2K',
      'For Ferry line, handheld 14, 2026-10-15',
    ])
  })

  it('says what it was and is, what became of their things, and the tally', () => {
    expect(text()).toContain('It was H2.0ZC.r4 and is H2.104.r4, patch date 2026-10-01.')
    expect(text()).toContain('stored tickets: kept')
    expect(text()).toContain('Counted before: 214 items. Counted after: 214.')
    expect(text()).toContain('Screen: works')
    expect(text()).toContain('SIM given back: done')
  })

  it('follows a line that is another, and says nothing of what was not said', () => {
    const failing = [...LINES.slice(0, 1), line('after.screen', 'fails')]
    expect(text({ lines: failing })).toContain('Screen: fails')
    expect(text({ lines: failing })).not.toContain('Counted before')
    expect(text({ lines: failing })).not.toContain('SIM')
  })

  it('names the mark only where the floor rose', () => {
    expect(text()).toContain('The rollback floor rose')
    expect(text({ floor: 6 })).toContain('Nothing stays.')
  })

  it('claims nothing where nothing was written', () => {
    expect(text({ state: 'stopped' })).toContain('Nothing was written to it.')
    expect(text({ state: 'stopped' })).not.toContain('kept')
    expect(text({ state: 'stopped' })).not.toContain('look for the next')
  })

  it('bears the head of the book, or a cut-off tail would be invisible', () => {
    expect(sheet().foot.at(-1)).toBe(`Entry 588 of the house’s book, head ${HEAD.hash}.`)
  })

  it('looks for the next patch the house’s days after this one', () => {
    const days = (Date.parse(nextPatch('2026-10-01')) - Date.parse('2026-10-01')) / 86_400_000
    expect(days).toBe(PATCH_LOOK_DAYS)
    expect(text()).toContain(nextPatch('2026-10-01'))
  })

  it('is drawn as a PDF that says in its own keywords which book it is of', async () => {
    const pdf = (await drawSheet(sheet(), 'Ninebark')).toString('latin1')
    expect(pdf.startsWith('%PDF-')).toBe(true)
    expect(pdf).toContain('/Keywords')
    expect(pdf.trimEnd().endsWith('%%EOF')).toBe(true)
  })
})
