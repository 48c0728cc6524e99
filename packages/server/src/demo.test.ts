import { SLIP_STATES, STAGES } from '@plain-slate/core'
import type { Bench as BenchAnswer, EventLine, PlanPage, SlipRow } from '@plain-slate/api'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { checkBook } from './book/check.ts'
import { openBench } from './testing/bench.ts'
import type { Bench, Browser } from './testing/bench.ts'

const FAMILIES = new URL('../../../demo/families', import.meta.url).pathname
let bench: Bench
let ilse: Browser
beforeAll(async () => {
  bench = await openBench('demo', undefined, { PLAIN_SLATE_FAMILIES: FAMILIES })
  ilse = await bench.at('Ilse')
})
afterAll(() => bench.close())

const rows = async () => (await ilse.get<{ rows: SlipRow[] }>('/api/slips')).body.rows

describe('the demo', () => {
  it('runs on its own Thursday in October, whatever the real date', async () => {
    const { now, demo } = (await ilse.get<{ now: string; demo: boolean }>('/api/shop')).body
    expect(demo).toBe(true)
    expect(now).toMatch(/^2026-10-15T14:[2-5]/)
    expect(new Date(now).getUTCDay()).toBe(4)
  })

  it('has slips in every stage and of every state', async () => {
    const all = await rows()
    expect(new Set(all.map(({ stage }) => stage))).toEqual(new Set(STAGES))
    expect(new Set(all.map(({ state }) => state))).toEqual(new Set(SLIP_STATES))
  })

  it('has nothing in its book that happens after its own now, and a chain that holds', async () => {
    const { entries } = (await ilse.get<{ entries: EventLine[] }>('/api/book')).body
    const now = await bench.server.workshop.clock.now()
    expect(entries.every(({ at }) => Date.parse(at) <= now)).toBe(true)
    const inOrder = [...entries].sort((a, b) => a.at.localeCompare(b.at) || a.seq - b.seq)
    expect(inOrder.map(({ seq }) => seq)).toEqual([...entries].reverse().map(({ seq }) => seq))
    expect((await checkBook(bench.server.workshop)).holds).toBe(true)
  })

  it('took its plans with what its own earlier runs had measured by then', async () => {
    const ownRuns = async (number: string) =>
      (await ilse.get<PlanPage>(`/api/slips/${number}/plan`)).body.taken?.shown.ownRuns ?? 0
    const [yesterday, today] = [await ownRuns('0402'), await ownRuns('0421')]
    expect(yesterday).toBeGreaterThan(0)
    expect(today).toBeGreaterThan(yesterday)
  })

  it('opens its next slip as 0437', async () => {
    const made = await ilse.post<{ number: string }>('/api/slips', {
      device: 'Fen 8',
      intent: 'update',
    })
    expect(made.body.number).toBe('0437')
  })

  it('has six ports, and cables of which one drops and one is worn', async () => {
    const { ports, cables } = (await ilse.get<BenchAnswer>('/api/bench')).body
    expect(ports.map(({ name }) => name)).toEqual(['P1', 'P2', 'P3', 'P4', 'P5', 'P6'])
    expect(cables.find(({ name }) => name === 'E')).toMatchObject({
      port: 'P6',
      note: 'drops now and then',
    })
    expect(cables.find(({ name }) => name === 'B')?.note).toBe('worn and slow')
  })
})
