/** The customer's sheet says what was done from what is kept of the job, and bears the head of the book. */
import type { LineShown } from '@plain-slate/api'
import type { Fate, Paper } from '@plain-slate/core'
import { standingLines } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { PATCH_LOOK_DAYS } from '../shop/rules.ts'
import type { JobAt } from './job-at.ts'
import { nextPatch } from './proof.ts'
import { drawSheet } from './draw.ts'
import { sheetBlocks } from './sheet.ts'

const HEAD = { seq: 588, hash: 'ab'.repeat(32) }
const DATE = '2026-10-15'
const line = (topic: string, answer: string): LineShown => ({
  topic,
  answer,
  note: null,
  by: 'Ilse Maro',
  at: '2026-10-15T15:00:00.000Z',
})
const LINES = [line('after.screen', 'works'), line('back.sim', 'done')]

const TALLY = { items: 214, bytes: 4096, opens: true, at: '2026-10-15T15:00:00.000Z' }

function job(
  more: {
    lines?: readonly LineShown[]
    floor?: number
    state?: string
    device?: object
    after?: null
  } = {},
): JobAt {
  const all = more.lines ?? LINES
  return {
    slip: { number: '0417', device: 'Brakken H2K', customer: 'Ferry line, handheld 14' },
    all,
    lines: standingLines(all.map(({ topic, answer }) => ({ topic, answer, at: 0 }))),
    tally: { before: TALLY, after: more.after === null ? null : TALLY },
    sight: undefined,
    device: more.device,
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
const paper = (more: Partial<Paper> = {}): Paper => ({
  done: { kind: 'ended' },
  things: [{ item: 'tickets', name: 'stored tickets', fate: 'kept', found: 'as-promised' }],
  marks: ['floor'],
  bears: [],
  worse: [],
  ...more,
})
const sheet = (more: Parameters<typeof job>[0] = {}, told: Partial<Paper> = {}) =>
  sheetBlocks(job(more), paper(told), HEAD, DATE)
const text = (more: Parameters<typeof job>[0] = {}, told: Partial<Paper> = {}) =>
  sheet(more, told)
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
    expect(text()).toContain(
      'It was H2.0ZC.r4. H2.104.r4 was written to it; the device was not asked what it is now.',
    )
    const device = {
      at: '2026-10-15T14:59:00.000Z',
      facts: { build: 'H2.104.r4', patchDate: '2026-10-01' },
    }
    expect(text({ device })).toContain('It was H2.0ZC.r4 and is H2.104.r4, patch date 2026-10-01.')
    expect(text()).toContain('stored tickets: kept')
    expect(text()).toContain('Counted before: 214 items. Counted after: 214.')
    expect(text()).toContain('Screen: works')
    expect(text()).toContain('SIM given back: done')
  })

  it('follows a line that is another, and says nothing of what was not said', () => {
    const failing = [line('after.screen', 'fails')]
    expect(text({ lines: failing })).toContain('Screen: fails')
    expect(text({ lines: failing, after: null })).not.toContain('Counted before')
    expect(text({ lines: failing })).toContain('Counted before')
    expect(text({ lines: failing })).not.toContain('SIM')
  })

  it('names the marks that stay, and cannot know them of a job that never started again', () => {
    expect(text()).toContain('The rollback floor rose')
    expect(text({}, { marks: ['loader'] })).toContain('Its loader was raised')
    const service = 'its maker’s service software has run on it'
    expect(text({}, { bears: [service] })).toContain(`It bears a mark: ${service}.`)
    expect(text()).not.toContain('bears a mark')
    expect(text({}, { marks: [] })).toContain('Nothing stays.')
    const broken = { kind: 'broken-off', step: 9, steps: 17, whole: [], part: [] } as const
    expect(text({}, { done: broken, marks: [] })).toContain('what stays cannot be told')
    expect(text({}, { done: broken, marks: ['loader'] })).toContain('Its loader was raised')
  })

  it('claims nothing where nothing was written', () => {
    const nothing = { done: { kind: 'nothing' }, things: [], marks: [] } as const
    expect(text({ state: 'stopped' }, nothing)).toContain('Nothing was written to it.')
    expect(text({ state: 'stopped' }, nothing)).not.toContain('kept')
    expect(text({ state: 'stopped' }, nothing)).not.toContain('look for the next')
    expect(text({ state: 'stopped' }, nothing)).not.toContain('stays')
  })

  it('says how far writing came that stopped half-way, and what nobody has seen since', () => {
    const done = {
      kind: 'broken-off',
      step: 9,
      steps: 17,
      whole: ['loader', 'kernel'],
      part: ['main'],
    } as const
    const [thing] = paper().things
    if (thing === undefined) throw new Error('no thing')
    const says = text({ state: 'stopped' }, { done, things: [{ ...thing, found: 'unseen' }] })
    expect(says).toContain('it stopped in step 9 of 17')
    expect(says).toContain('New on it: loader, kernel.')
    expect(says).toContain('Half written, or in doubt: main.')
    expect(says).toContain('stored tickets: kept was promised; nobody has seen whether it is so')
    expect(says).not.toContain('Nothing was written')
    expect(says).not.toContain('look for the next')
  })

  it('says "kept" only where it was found so', () => {
    const [thing] = paper().things
    if (thing === undefined) throw new Error('no thing')
    const found = (how: Paper['things'][number]['found'], fate: Fate = 'kept') =>
      text({}, { things: [{ ...thing, fate, found: how }] })
    expect(found('as-promised')).toContain('stored tickets: kept\n')
    expect(found('not-as-promised')).toContain(
      'stored tickets: kept was promised, and it was not found so',
    )
    expect(found('unseen', 'unpromised')).toContain('stored tickets: cannot be promised')
  })

  it('lists what is worse than before', () => {
    const worse = [{ what: 'function.screen', was: 'works', now: 'fails' }]
    expect(text({}, { worse })).toContain('Screen: works before, fails now')
    expect(text()).not.toContain('fails now')
  })

  it('says that a copy is kept, as long as one is', () => {
    const copy = [...LINES, line('ready.backup', 'opens')]
    expect(text({ lines: copy })).toContain('We keep a copy of your data')
    expect(text({ lines: [...copy, line('care.backup', 'deleted')] })).not.toContain('We keep')
    expect(text()).not.toContain('We keep')
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
