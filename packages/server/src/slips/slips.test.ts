import type { ApiError, Slip, SlipRow } from '@plain-slate/api'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openBench } from '../testing/bench.ts'
import type { Bench, Browser } from '../testing/bench.ts'

let bench: Bench
let tavi: Browser
let pell: Browser
beforeAll(async () => {
  bench = await openBench()
  tavi = await bench.at('Tavi')
  pell = await bench.at('Pell')
})
afterAll(() => bench.close())

type List = {
  rows: SlipRow[]
  found: number
  page: number
  pages: number
  total: number
  states: Record<string, number>
}
const numbers = async (query: string) =>
  (await tavi.get<List>(`/api/slips?${query}`)).body.rows.map((row) => row.number)

async function opened(more: object = {}): Promise<string> {
  const draft = { device: 'Brakken H2', intent: 'update', ...more }
  return (await tavi.post<Slip>('/api/slips', draft)).body.number
}

describe('the list', () => {
  it('holds the demo’s slips 0401 to 0436', async () => {
    const all = await numbers('sort=number')
    expect(all).toEqual(
      Array.from({ length: 36 }, (_, index) => String(401 + index).padStart(4, '0')),
    )
  })

  it('finds every word wherever it stands, and no wild card', async () => {
    expect(await numbers('q=handheld+14+H2K')).toEqual(['0417'])
    expect(await numbers('q=mara')).toEqual(['0401'])
    expect(await numbers('q=%25')).toEqual([])
    expect(await numbers('q=0_17')).toEqual([])
  })

  it('filters by state, intent and stage together', async () => {
    expect(await numbers('state=stopped,declined')).toEqual(['0410', '0412', '0416', '0429'])
    expect(await numbers('state=open&intent=downgrade&stage=intake')).toEqual([
      '0405',
      '0406',
      '0424',
    ])
  })

  it('sorts stages in the order of the work, both ways', async () => {
    const up = (await tavi.get<List>('/api/slips?sort=stage')).body.rows.map((row) => row.stage)
    expect([up[0], up.at(-1)]).toEqual(['intake', 'hand-back'])
    const down = (await tavi.get<List>('/api/slips?sort=stage&dir=down')).body.rows
    expect(down[0]?.stage).toBe('hand-back')
  })

  it('counts each state whatever state is shown', async () => {
    const { body } = await tavi.get<List>('/api/slips?q=ferry&state=waiting')
    expect(body.total).toBe(Object.values(body.states).reduce((sum, n) => sum + n, 0))
    expect(body.rows).toHaveLength(body.states['waiting'] ?? -1)
  })

  it('refuses a state that does not exist, naming it', async () => {
    const { status, body } = await tavi.get('/api/slips?state=lost')
    expect([status, body.code, body.where?.[0]?.path]).toEqual([
      422,
      'input.invalid',
      'query.state.0',
    ])
  })

  it('leaves as CSV in which no cell is a formula', async () => {
    const number = await opened({ device: '=HYPERLINK("x")' })
    const csv = await tavi.text(`/api/slips.csv?q=${number}`)
    expect(csv.split('\r\n')[0]).toBe(
      'number,device,model,customer,intent,promise,stage,state,due,opened',
    )
    expect(csv).toContain(`${number},"'=HYPERLINK(""x"")"`)
  })
})

describe('a new slip', () => {
  it('takes the next number, also when two are opened at once', async () => {
    const drafts = Array.from({ length: 8 }, () => opened())
    const taken = (await Promise.all(drafts)).map(Number).sort((a, b) => a - b)
    expect(taken).toEqual(taken.map((_, index) => (taken[0] ?? 0) + index))
  })

  it('may be opened by a trainee, who may not change it afterwards', async () => {
    const juno = await bench.at('Juno')
    const made = await juno.post<Slip>('/api/slips', { device: 'Fen 8', intent: 'restore' })
    expect(made.status).toBe(200)
    const change = { device: { from: 'Fen 8', to: 'Fen 11' } }
    const refused = await juno.patch(`/api/slips/${made.body.number}`, change)
    expect(refused.body).toMatchObject({
      code: 'act.refused',
      sentence: expect.stringContaining('technician'),
    })
  })

  it('says where its draft cannot be read and keeps nothing of it', async () => {
    const before = await numbers('')
    const { body } = await tavi.post('/api/slips', { device: 'x', intent: 'sell', due: 'soon' })
    expect(body.where?.map((one) => one.path)).toEqual(['body.device', 'body.intent', 'body.due'])
    expect(await numbers('')).toEqual(before)
  })
})

describe('a head that two people change', () => {
  it('keeps both changes when they touch different fields', async () => {
    const number = await opened({ promise: 'tickets' })
    await tavi.patch(`/api/slips/${number}`, { device: { from: 'Brakken H2', to: 'Brakken H2K' } })
    await pell.patch(`/api/slips/${number}`, { promise: { from: 'tickets', to: 'stored tickets' } })
    const { body } = await tavi.get<Slip>(`/api/slips/${number}`)
    expect(body).toMatchObject({ device: 'Brakken H2K', promise: 'stored tickets', version: 3 })
  })

  it('loses neither when both change one field: the second is shown the first', async () => {
    const number = await opened({ promise: 'tickets' })
    await tavi.patch(`/api/slips/${number}`, { promise: { from: 'tickets', to: 'all tickets' } })
    const refused = await pell.patch(`/api/slips/${number}`, {
      promise: { from: 'tickets', to: 'nothing' },
      model: { from: '', to: 'BRAK-H2' },
    })
    expect(refused.status).toBe(409)
    expect(refused.body.theirs).toMatchObject([
      { field: 'promise', value: 'all tickets', by: 'Tavi Renn' },
    ])
    const { body } = await tavi.get<Slip>(`/api/slips/${number}`)
    expect(body).toMatchObject({ promise: 'all tickets', model: null })
  })

  it('names the last writer of that very field', async () => {
    const number = await opened({ promise: 'tickets' })
    await pell.patch(`/api/slips/${number}`, { promise: { from: 'tickets', to: 'photos' } })
    await tavi.patch(`/api/slips/${number}`, { model: { from: '', to: 'BRAK-H2' } })
    const change = { promise: { from: 'tickets', to: 'cards' } }
    const refused = await tavi.patch(`/api/slips/${number}`, change)
    expect(refused.body.theirs?.[0]).toMatchObject({ by: 'Pell Ondry', value: 'photos' })
  })

  it('takes turns under load: of ten rivals for one field exactly one is first', async () => {
    const number = await opened({ promise: 'tickets' })
    const rivals = Array.from({ length: 10 }, (_, index) =>
      tavi.patch(`/api/slips/${number}`, { promise: { from: 'tickets', to: `promise ${index}` } }),
    )
    const codes = (await Promise.all(rivals)).map((one) => one.status).sort()
    expect(codes).toEqual([200, ...Array<number>(9).fill(409)])
  })

  it('saying what it says already changes nothing', async () => {
    const number = await opened({ promise: 'tickets' })
    const same = { promise: { from: 'something old', to: 'tickets' } }
    const { body } = await tavi.patch<Slip>(`/api/slips/${number}`, same)
    expect(body.version).toBe(1)
  })
})

describe('the state of a slip', () => {
  it('goes from open to stopped and back, with its reason, and no other way', async () => {
    const number = await opened()
    const stop = { state: 'stopped', reason: 'Swollen cell.' }
    expect((await tavi.post<Slip>(`/api/slips/${number}/state`, stop)).body.state).toBe('stopped')
    const close = await tavi.post(`/api/slips/${number}/state`, { state: 'closed' })
    expect(close.body.code).toBe('slip.state')
    const lines = await tavi.get<{ act: string; texts: object }[]>(`/api/slips/${number}/history`)
    expect(lines.body[0]).toMatchObject({ act: 'slip.state', texts: { reason: 'Swollen cell.' } })
  })

  it('once ended keeps its head, and still takes notes', async () => {
    const number = await opened()
    const close = (reason: string) =>
      tavi.post(`/api/slips/${number}/state`, { state: 'closed', reason })
    const over = (await close('')).body
    expect(over.code).toBe('slip.stages-open')
    expect(over.sentence).toContain('Intake, Readings, Firmware')
    expect((await close('Its owner fetched it undone.')).status).toBe(200)
    const change = { device: { from: 'Brakken H2', to: 'Fen 8' } }
    expect((await tavi.patch(`/api/slips/${number}`, change)).body.code).toBe('slip.ended')
    const noted = await tavi.post(`/api/slips/${number}/notes`, { text: 'Fetched at noon.' })
    expect(noted.status).toBe(200)
  })
})

describe('a slip that is not there', () => {
  it('is said not to be there by every act on it', async () => {
    const answers = await Promise.all([
      tavi.get('/api/slips/9999'),
      tavi.patch('/api/slips/9999', {}),
      tavi.post('/api/slips/9999/notes', { text: 'x' }),
      tavi.post('/api/slips/9999/state', { state: 'open' }),
    ])
    for (const { status, body } of answers as { status: number; body: ApiError }[])
      expect([status, body.code]).toEqual([404, 'slip.unknown'])
  })
})

describe('a full house', () => {
  let crowded: Bench
  beforeAll(async () => (crowded = await openBench()))
  afterAll(() => crowded.close())

  it('opens two hundred slips at once, each with a number of its own, and lists them by the page', async () => {
    const browser = await crowded.at('Tavi')
    const opened = await Promise.all(
      Array.from({ length: 200 }, (_, at) =>
        browser.post<Slip>('/api/slips', { device: `Crowd ${at}`, intent: 'update' }),
      ),
    )
    expect([...new Set(opened.map(({ status }) => status))]).toEqual([200])
    expect(new Set(opened.map(({ body }) => body.number)).size).toBe(200)

    const page = async (query: string) =>
      (await browser.get<List>(`/api/slips?q=Crowd&sort=number&${query}`)).body
    const pages = await Promise.all([1, 2, 3, 4].map((at) => page(`page=${at}`)))
    expect(pages.map(({ rows, found, pages: of }) => [rows.length, found, of])).toEqual(
      pages.map(() => [50, 200, 4]),
    )
    const numbers = pages.flatMap(({ rows }) => rows.map(({ number }) => number))
    expect(numbers).toEqual([...numbers].sort())
    expect(new Set(numbers).size).toBe(200)
    /* Past the last page stands the last; a filter leaves fewer pages. */
    expect(await page('page=9')).toMatchObject({ page: 4, pages: 4 })
    expect(await page('state=closed&page=2')).toMatchObject({ rows: [], found: 0, pages: 1 })
    /* What leaves as CSV is the whole list. */
    const csv = await browser.text('/api/slips.csv?q=Crowd')
    expect(csv.trimEnd().split('\r\n')).toHaveLength(201)
  })
})
