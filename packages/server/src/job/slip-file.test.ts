/**
 * A slip out as a file and in again, families and ways as they are asked for: what is personal stays, what was signed
 * there is not signed here, what was read there is what an earlier slip told.
 */
import type { ApiError, FamilyRow, FamilyShown, Job, WayShown } from '@plain-slate/api'
import type { SlipFile } from '@plain-slate/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openBench } from '../testing/bench.ts'
import type { Bench, Browser } from '../testing/bench.ts'

const FAMILIES = new URL('../../../../demo/families', import.meta.url).pathname
let bench: Bench
let tavi: Browser
beforeAll(async () => {
  bench = await openBench('demo', undefined, { PLAIN_SLATE_FAMILIES: FAMILIES })
  tavi = await bench.at('Tavi')
})
afterAll(() => bench.close())

type Taken = { number: string; lines: number; left: number; readings: number }
const fileOf = async (number: string, texts = 'without') =>
  (await tavi.get<SlipFile>(`/api/slips/${number}/file?texts=${texts}`)).body
const take = (text: string) => tavi.post<Taken & ApiError>('/api/slips/files', { text })
const jobOf = async (number: string) => (await tavi.get<Job>(`/api/slips/${number}/job`)).body

describe('a slip’s file', () => {
  it('goes without names and notes unless they are asked for', async () => {
    const bare = await fileOf('0418')
    expect([bare.customer, bare.words]).toEqual([null, null])
    expect(bare.lines.every(({ by, note }) => by === null && note === null)).toBe(true)
    expect(bare.readings.every(({ by }) => by === null)).toBe(true)
    const personal = await fileOf('0418', 'with')
    expect(personal.customer).toContain('Ferry line')
    expect(personal.lines.some(({ by }) => by !== null)).toBe(true)
  })

  it('opens a slip: wishes are taken over, what was signed there is not, readings count as told', async () => {
    const file = await fileOf('0418')
    const taken = (await take(JSON.stringify(file))).body
    expect(taken.readings).toBe(file.readings.length)
    const job = await jobOf(taken.number)
    const groups = new Set(job.lines.map(({ topic }) => topic.split('.')[0]))
    expect(
      [...groups].every((one) => ['survive', 'history', 'accessory'].includes(one ?? '')),
    ).toBe(true)
    expect(taken.lines + taken.left).toBe(file.lines.length)
    expect(job.lines.find(({ topic }) => topic.startsWith('survive.'))?.note).toContain('slip 0418')
    const board = job.facts.find(({ fact }) => fact === 'board')
    expect(board?.kind).toBe('told')
    expect(board?.claims.flatMap(({ sources }) => sources.map(({ source }) => source))).toEqual([
      'earlier',
    ])
  })

  it('that is none of ours opens nothing, and says why', async () => {
    const before = (await tavi.get<{ total: number }>('/api/slips')).body.total
    const file = await fileOf('0418')
    for (const text of ['{', JSON.stringify({ ...file, intent: 'dance' })]) {
      const { status, body } = await take(text)
      expect([status, body.code]).toEqual([422, 'slip.file'])
    }
    expect((await tavi.get<{ total: number }>('/api/slips')).body.total).toBe(before)
  })

  it('is found by the end of a serial that was read of its device', async () => {
    const serial = String(
      (await fileOf('0418')).readings.find(({ fact }) => fact === 'serial')?.value ?? '',
    )
    const hits = async (q: string) =>
      (await tavi.get<{ kind: string; number?: string }[]>(`/api/find?q=${q}`)).body.flatMap(
        ({ number }) => number ?? [],
      )
    expect(await hits(serial.slice(-4))).toContain('0418')
    expect(await hits(`${serial.slice(-4)}9`)).not.toContain('0418')
  })
})

describe('families and ways over the API', () => {
  it('lists each with the slips under way, and gives its profile', async () => {
    const rows = (await tavi.get<FamilyRow[]>('/api/families')).body
    expect(rows.map(({ id }) => id)).toEqual(['alder', 'fen', 'tarn'])
    expect(rows.find(({ id }) => id === 'tarn')?.slips).toBeGreaterThan(5)
    const shown = (await tavi.get<FamilyShown>('/api/families/tarn')).body
    expect(shown.family).toMatchObject({ maker: 'Brakken' })
    expect(shown.digest).toMatch(/^[0-9a-f]{64}$/)
    expect((await tavi.get<ApiError>('/api/families/birch')).status).toBe(404)
  })

  it('gives a way from where somebody says it is, counts what missed, and knows no other mode', async () => {
    const way = async (query: string) =>
      (await tavi.get<WayShown & ApiError>(`/api/slips/0409/way?${query}`)).body
    expect((await way('to=loader')).legs).toBeNull()
    expect((await way('to=loader&from=rescue')).legs?.map(({ to }) => to.id)).toEqual([
      'off',
      'loader',
    ])
    const missed = { topic: 'way.loader', answer: 'missed', note: '' }
    const put = (answer: string) =>
      tavi.post('/api/slips/0409/lines', { lines: [{ ...missed, answer }] })
    await put('missed')
    await put('missed')
    expect((await way('to=loader&from=off')).missed).toBe(2)
    await put('arrived')
    expect((await way('to=loader&from=off')).missed).toBe(0)
    expect((await way('to=cellar')).code).toBe('mode.unknown')
  })

  it('sends a device that does not start through no system', async () => {
    const put = (answer: string) =>
      tavi.post('/api/slips/0435/lines', { lines: [{ topic: 'history.starts', answer, note: '' }] })
    const modes = async () =>
      (await jobOf('0435')).next.flatMap(({ mode }) => (mode === null ? [] : (mode.kind ?? [])))
    await put('stops')
    expect(await modes()).not.toContain('system')
    await put('silent')
    expect((await modes()).length).toBeGreaterThan(0)
  })

  it('says what to read next of a device at no port, and nothing once its run has begun', async () => {
    const { next } = await jobOf('0409')
    /* Nothing is on this shelf: the job wants it all the same. */
    expect(next[0]).toMatchObject({ source: 'link', left: 0 })
    expect(next[1] && next[0]?.along.includes(next[1].fact)).not.toBe(true)
    expect((await jobOf('0428')).next).toEqual([])
  })
})
