// @vitest-environment jsdom
/** What the sheets up to Proof say moves with what the server tells, and stays with what it does not rest on. */
import type { Slip } from '@plain-slate/api'
import { describe, expect, it } from 'vitest'
import { NORMAL, fact, job, slip, stagesAt } from '../testing/job.ts'
import { SHOP, sheet } from '../testing/sheet.ts'
import Intake from './Intake.vue'
import Proof from './Proof.vue'
import Readings from './Readings.vue'
import ReadySheet from './Ready.vue'

describe('a stage that is not reached', () => {
  it('says what it waits for and why, and goes there', async () => {
    const at = job('readings', { stages: stagesAt('readings', { n: 2, settled: 11 }) })
    const { h1, text } = await sheet(ReadySheet, { job: at })
    expect(h1).toBe('Ready waits for Readings')
    expect(text).toContain('2 facts to read, 11 settled')
    expect(text).toContain('Go to Readings')
  })

  it('says that a slip is over, and offers to open it again unless it was closed', async () => {
    const stopped = await sheet(Intake, { job: job('intake'), slip: slip({ state: 'stopped' }) })
    expect(stopped.text).toContain('Open it again')
    const closed = await sheet(Intake, { job: job('hand-back'), slip: slip({ state: 'closed' }) })
    expect(closed.text).toContain('This slip is closed')
    expect(closed.text).not.toContain('Open it again')
  })

  it('says on paper which slip it is, and when it was printed', async () => {
    const of = async (more: Partial<Slip> = {}) =>
      (await sheet(Intake, { job: job('intake'), slip: slip(more) })).shown
        .find('.print-only')
        .text()
    expect(await of()).toMatch(
      /^Slip 0417 · Brakken H2K · Ferry line.* · Intake, printed 2026-10-15 /,
    )
    expect(await of({ device: 'Fen 8' })).toContain('Fen 8')
  })

  it('takes nothing more on a slip that is over', async () => {
    const barred = async (state: Slip['state']) =>
      (await sheet(Intake, { job: job('intake'), slip: slip({ state }) })).shown
        .findAll('.answer')
        .map((one) => one.attributes('disabled') !== undefined)
    expect(new Set(await barred('stopped'))).toEqual(new Set([true]))
    expect(new Set(await barred('waiting'))).toEqual(new Set([false]))
  })
})

describe('a stage gone back to', () => {
  const taken = { at: '2026-10-15T14:31:00.000Z', by: 'Pell', title: 'x', stale: false }
  it('says what would have to be done again, by whom it was taken', async () => {
    const { text } = await sheet(Readings, { job: job('ready', { plan: taken }) })
    expect(text).toContain('the plan taken today 14:31 by Pell goes stale where it rests on it')
  })
  it('says nothing where nothing rests on it, and history once the run has begun', async () => {
    expect((await sheet(Readings, { job: job('firmware') })).text).not.toContain('goes stale')
    const begun = job('write', { plan: taken, run: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0009' })
    expect((await sheet(Readings, { job: begun })).text).toContain('it is history now')
  })
})

describe('Readings', () => {
  const claims = [
    {
      value: 'r4',
      weight: 8,
      sources: [
        {
          source: 'link' as const,
          trust: 8,
          at: '2026-10-15T14:22:00.000Z',
          by: 'Ilse Maro',
          mode: null,
          typed: false,
        },
      ],
    },
  ]
  it('names what is open, and weighs who says so', async () => {
    const open = fact('board', {
      kind: 'contradicted',
      value: null,
      claims,
      holdsUp: ['H2.104.r4'],
    })
    const at = job('readings', {
      stages: stagesAt('readings', { n: 1, settled: 12 }),
      facts: [open],
    })
    const { h1, text } = await sheet(Readings, { job: at })
    expect(h1).toBe('One fact is not settled: board')
    expect(text).toContain('r4, weight 8: the link, Ilse Maro, today 14:22')
    expect(text).toContain('without it we cannot tell: H2.104.r4')
  })

  it('counts what is settled', async () => {
    const at = job('firmware', { facts: [fact('board'), fact('model')] })
    expect((await sheet(Readings, { job: at })).h1).toBe(
      'All 2 facts that the job needs are settled',
    )
  })

  it('says that no family knows a model, and asks for one where none is known', async () => {
    const at = job('readings', { family: null })
    expect((await sheet(Readings, { job: at, slip: slip({ model: 'CORV-4N' }) })).h1).toBe(
      'No family here knows the model CORV-4N',
    )
    expect((await sheet(Readings, { job: at, slip: slip({ model: null }) })).h1).toBe(
      'We cannot tell yet which model it is',
    )
  })

  it('shows what its screen says and the marks it bears', async () => {
    const { device } = job('readings')
    const marked = device && { ...device, shows: 'not signed', marks: ['custom has run'] }
    const { text } = await sheet(Readings, { job: job('readings', { device: marked }) })
    expect(text).toContain('Its screen says: “not signed”.')
    expect(text).toContain('It bears a mark that stays: custom has run.')
    expect((await sheet(Readings, { job: job('readings') })).text).not.toContain('mark that stays')
  })

  it('reads the one device it can be, and lets a person choose among several', async () => {
    const port = (name: string) => ({
      name,
      serial: `TRN00000000${name}`,
      model: 'BRAK-H2K',
      mode: NORMAL,
    })
    const open = { stages: stagesAt('readings', { n: 13, settled: 0 }), device: null }
    const one = await sheet(Readings, { job: job('readings', { ...open, ports: [port('P3')] }) })
    expect(one.text).toContain('Read it at P3')
    const two = job('readings', { ...open, ports: [port('P3'), port('P4')] })
    const several = await sheet(Readings, { job: two })
    expect(several.text).not.toContain('Read it at')
    expect(several.text).toContain('Compare the end of the serial with the label')
  })
})

describe('Proof', () => {
  const row = (title: string, key: string, more: object = {}) => ({
    key,
    id: title,
    title,
    family: 'tarn',
    kind: 'full',
    channel: 'stable',
    build: title,
    release: 5,
    patchDate: '2026-10-01',
    models: [],
    boards: [],
    state: 'published',
    bytes: 1,
    scale: 256,
    held: 8,
    made: 8,
    claims: [],
    volumes: [],
    ...more,
  })
  const AIM = 'tarn-H2.104.r4~aaaaaaaaaaaa'
  const FIRST = 'tarn-loader-7-r4~bbbbbbbbbbbb'
  const shelf = (archives: readonly object[] = []) => ({
    shelf: {
      packages: [row('H2.104.r4', AIM), row('loader 7', FIRST, { held: 3, made: 3 })],
      archives,
      states: { known: 0, whole: 0, published: 2, refuted: 0 },
      catalogues: [],
    },
    [encodeURIComponent(AIM)]: row('H2.104.r4', AIM),
    [encodeURIComponent(FIRST)]: row('loader 7', FIRST),
  })
  it('adds the claims up that hold', async () => {
    const { h1 } = await sheet(Proof, { job: job('compare'), more: shelf() })
    expect(h1).toBe('Both packages are proven: 11 claims hold')
    const route = { ...job('compare').route, keys: [AIM, FIRST, 'c'], claims: 12 }
    const three = await sheet(Proof, { job: job('compare', { route } as object), more: shelf() })
    expect(three.h1).toBe('All 3 packages are proven: 12 claims hold')
  })
  const archive = {
    id: 'a',
    name: 'x.tar',
    sha256: '',
    bytes: 100,
    done: 40,
    state: 'reading',
    refusal: null,
    refusedEntries: 0,
    entries: 0,
    endMark: true,
    behind: null,
    package: null,
    trouble: null,
    by: null,
    at: SHOP.now,
    removedAt: null,
  }
  const refusal = { entry: 'main.img', offset: 512, rule: 'truncated' }
  const open = job('proof', { stages: stagesAt('proof', { titles: 'H2.104.r4' }) })
  it('says which are not proven, how far a file is read, and why it was refused then', async () => {
    const more = shelf([archive])
    const { h1, shown, refetched } = await sheet(Proof, { job: open, more })
    expect(h1).toBe('Not whole: H2.104.r4')
    expect(shown.find('.bar div').attributes('style')).toContain('40%')
    expect(shown.text()).not.toContain('was refused')
    Object.assign(more, shelf([{ ...archive, state: 'refused', refusal }]))
    await refetched()
    expect(shown.find('.bar').exists()).toBe(false)
    expect(shown.text()).toContain('x.tar was refused: it ends too early, in main.img at byte 512')
  })
  it('keeps what was refused before it was opened for the Shelf', async () => {
    const more = shelf([{ ...archive, state: 'refused', refusal }])
    const { text } = await sheet(Proof, { job: open, more })
    expect(text).not.toContain('was refused')
  })
})
