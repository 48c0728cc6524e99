import type { ApiError, Bench as BenchShown, LookShown, Port } from '@plain-slate/api'
import type { DeviceFacts } from '@plain-slate/core'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { BENCH_SECRET, LEAD_FACTS, agentSees, answerLook } from '../testing/agent.ts'
import type { Bench, Browser } from '../testing/bench.ts'
import { openBench } from '../testing/bench.ts'

let bench: Bench
let tavi: Browser
let juno: Browser
beforeAll(async () => {
  bench = await openBench()
  tavi = await bench.at('Tavi')
  juno = await bench.at('Juno')
})
afterAll(() => bench.close())

const sees = (port: string, facts: Partial<DeviceFacts> | null) =>
  agentSees(bench.address, port, facts)
const shown = async () => (await tavi.get<BenchShown>('/api/bench')).body
async function port(name: string): Promise<Port | undefined> {
  return (await shown()).ports.find((one) => one.name === name)
}

describe('a port', () => {
  beforeEach(() => sees('P4', null))

  it('says that something answers there, of a family that nobody knows', async () => {
    expect((await port('P4'))?.word).toBe('free')
    await sees('P4', {})
    expect(await port('P4')).toMatchObject({
      word: 'answers',
      seen: { model: 'BRAK-H2K', serial: 'TRN4490077F31', battery: 71, build: 'H2.0ZC.r4' },
    })
    await sees('P4', { mode: 'anything' })
    expect((await port('P4'))?.seen?.mode).toEqual({ id: 'anything', name: 'anything', kind: null })
  })

  it('follows battery and build, and no other port does', async () => {
    const others = async () => (await shown()).ports.filter(({ name }) => name !== 'P4')
    const before = await others()
    await sees('P4', { batteryPercent: 40, build: 'H2.104.r4' })
    expect((await port('P4'))?.seen).toMatchObject({ battery: 40, build: 'H2.104.r4' })
    expect(await others()).toEqual(before)
  })

  it('is watched while an agent speaks, and its words are taken from nobody else', async () => {
    await sees('P4', {})
    expect((await shown()).watched).toBe(true)
    const said = await tavi.post('/api/agent/ports', { agent: 'a', ports: [] })
    expect(said.body.code).toBe('act.refused')
  })
})

describe('a cable', () => {
  const where = async (cable: string) =>
    (await shown()).cables.find(({ name }) => name === cable)?.port

  it('is hung on another port, and the one that hung there comes off', async () => {
    expect(await where('E')).toBe('P6')
    await juno.post('/api/bench/cables', { cable: 'F', port: 'P6' })
    expect([await where('E'), await where('F')]).toEqual([null, 'P6'])
    expect((await port('P6'))?.cable).toBe('F')
  })

  it('that nobody knows is refused by name, and so is a port', async () => {
    const cable = await tavi.post('/api/bench/cables', { cable: 'Z', port: 'P6' })
    expect([cable.status, cable.body.code]).toEqual([404, 'port.unknown'])
    const place = await tavi.post('/api/bench/cables', { cable: 'F', port: 'P9' })
    expect(place.body.code).toBe('port.unknown')
    expect(await where('F')).toBe('P6')
  })

  it('has its moves in the book', async () => {
    await tavi.post('/api/bench/cables', { cable: 'E', port: 'P5' })
    type Entries = { entries: { act: string; facts: object; by: string | null }[] }
    const { body } = await tavi.get<Entries>('/api/book?act=cable.moved')
    expect(body.entries[0]).toMatchObject({ by: 'Tavi Renn', facts: { cable: 'E', to: 'P5' } })
  })
})

describe('hands', () => {
  it('have nothing to hold where no simulated bench is', async () => {
    expect((await tavi.get<object[]>('/api/bench/hands')).body).toEqual([])
    const act = { kind: 'unplug', serial: 'TRN4490077F31' }
    const said = await tavi.post<ApiError>('/api/bench/hands', act)
    expect(said.body.code).toBe('hands.none')
  })

  it('do nothing that is not in the contract', async () => {
    const act = { kind: 'hammer', serial: 'TRN4490077F31' }
    expect((await tavi.post('/api/bench/hands', act)).body.code).toBe('input.invalid')
  })
})

const lookAt = async (name: string) =>
  (await shown()).ports.find((port) => port.name === name)?.look

describe('reading a device', () => {
  it('asks whoever holds the ports, and keeps what was found', async () => {
    await sees('P3', { mode: 'normal' })
    const asked = await tavi.post<LookShown>('/api/bench/ports/P3/read')
    expect(asked.body).toMatchObject({ port: 'P3', state: 'looking', found: null, trouble: null })
    expect((await lookAt('P3'))?.state).toBe('looking')
    const digest = { partition: 'modem', size: 4096, sha256: 'a'.repeat(64) }
    expect(await answerLook(bench.address, {}, { digests: [digest] })).toBe('P3')
    expect(await lookAt('P3')).toMatchObject({
      state: 'found',
      found: { serial: LEAD_FACTS.serial, digests: 1, table: false },
    })
  })

  it('fails in words where nothing answered, and is refused at a port that nobody knows', async () => {
    await tavi.post('/api/bench/ports/P1/read')
    await answerLook(bench.address, null)
    expect(await lookAt('P1')).toMatchObject({ state: 'failed', trouble: { code: 'port.empty' } })
    expect((await tavi.post('/api/bench/ports/P9/read')).body.code).toBe('port.unknown')
  })

  it('is asked for once at a time, and given up when its agent never comes back', async () => {
    await tavi.post('/api/bench/ports/P3/read')
    expect((await tavi.post('/api/bench/ports/P3/read')).body.code).toBe('look.under-way')
    await bench.tamper(`update looks set at = at - interval '11 minutes' where state = 'looking'`)
    expect(await lookAt('P3')).toMatchObject({
      state: 'failed',
      trouble: { code: 'look.given-up' },
    })
    expect((await tavi.post<LookShown>('/api/bench/ports/P3/read')).body.state).toBe('looking')
    await answerLook(bench.address, {})
    expect(
      (await bench.server.workshop.db('looks').orderBy('at', 'desc').pluck('outcome')).map(
        (one: { kind: string; code?: string }) => one.code ?? one.kind,
      ),
    ).toEqual(expect.arrayContaining(['found', 'look.given-up']))
  })

  it('that has ended is not ended again by a late word', async () => {
    const { body } = await tavi.post<LookShown>('/api/bench/ports/P3/read')
    await answerLook(bench.address, {})
    const late = {
      id: body.id,
      found: { facts: null, met: [], table: null, digests: [], tally: null },
    }
    await fetch(`${bench.address}/api/agent/look`, {
      method: 'POST',
      headers: { ...BENCH_SECRET, 'content-type': 'application/json' },
      body: JSON.stringify(late),
    })
    expect((await lookAt('P3'))?.state).toBe('found')
  })
})
