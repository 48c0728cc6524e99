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

describe('a bench that a house lays out itself', () => {
  let shop: Bench
  let lead: Browser
  beforeAll(async () => {
    shop = await openBench('demo')
    lead = await shop.at('Ilse')
    await agentSees(shop.address, 'P4', null)
  })
  afterAll(() => shop.close())
  const bench = async () => (await lead.get<BenchShown>('/api/bench')).body
  const named = async (name: string) => (await bench()).ports.find((one) => one.name === name)
  const held = async () => {
    const body = { agent: 'agent a', ports: [] }
    type Answer = { ports: { name: string; address: string }[] }
    const answer = await fetch(`${shop.address}/api/agent/ports`, {
      method: 'POST',
      headers: { ...BENCH_SECRET, 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
    return ((await answer.json()) as Answer).ports
  }
  const address = 'tcp:127.0.0.1:4100'

  it('names a port for the agent that lives, and strikes it out again', async () => {
    const added = await lead.post('/api/bench/ports', { name: 'U1', address, note: 'left' })
    expect(added.status).toBe(200)
    expect(await named('U1')).toMatchObject({ way: address, ours: true, note: 'left' })
    expect(await held()).toEqual([{ name: 'U1', address }])
    const again = await lead.post('/api/bench/ports', { name: 'U1', address })
    expect(again.body.code).toBe('port.there')
    expect((await lead.post('/api/bench/ports/U1/strike')).status).toBe(200)
    expect([await named('U1'), await held()]).toEqual([undefined, []])
    expect((await lead.post('/api/bench/ports', { name: 'U1', address })).status).toBe(200)
  })

  it.each(['tcp:10.0.0.4:4100', '127.0.0.1:4100', 'tcp:127.0.0.1:70000', 'sh -c x'])(
    'takes no address that is not this machine’s own: %s',
    async (other) => {
      const said = await lead.post('/api/bench/ports', { name: 'U9', address: other })
      expect(said.body.code).toBe('port.address')
      expect(await named('U9')).toBeUndefined()
    },
  )

  it('leaves a port that a file names, and one that a run holds', async () => {
    await agentSees(shop.address, 'P4', null)
    expect((await lead.post('/api/bench/ports/P4/strike')).body.code).toBe('port.filed')
    expect((await lead.post('/api/bench/ports/X/strike')).body.code).toBe('port.unknown')
  })

  it('names a cable, hangs it, and strikes it out; its name is not given again', async () => {
    const name = 'G'
    await lead.post('/api/bench/cables/new', { name, port: 'P1', note: 'new' })
    expect((await named('P1'))?.cable).toBe('G')
    expect((await bench()).cables.find((one) => one.name === 'A')?.port).toBeNull()
    const twice = await lead.post('/api/bench/cables/new', { name, port: null })
    expect(twice.body.code).toBe('cable.there')
    const nowhere = await lead.post('/api/bench/cables/new', { name: 'I', port: 'X' })
    expect(nowhere.body.code).toBe('port.unknown')
    expect((await bench()).cables.some((one) => one.name === 'I')).toBe(false)
    await lead.post('/api/bench/cables/G/strike')
    expect((await named('P1'))?.cable).toBeNull()
    const after = await lead.post('/api/bench/cables/new', { name, port: null })
    expect(after.body.code).toBe('cable.struck')
    type Entries = { entries: { act: string; facts: object; by: string | null }[] }
    const { body } = await lead.get<Entries>('/api/book?act=cable.struck')
    expect(body.entries[0]).toMatchObject({ by: 'Ilse Maro', facts: { cable: 'G' } })
  })

  it('is laid out by a lead, its cables by a technician too', async () => {
    const hands = await shop.at('Tavi')
    expect((await hands.post('/api/bench/ports', { name: 'U2', address })).body.code).toBe(
      'act.refused',
    )
    expect((await hands.post('/api/bench/cables/new', { name: 'K', port: null })).status).toBe(200)
  })

  it('with no agent, or two, says so', async () => {
    await shop.tamper(`update agents set until = now() - interval '1 minute'`)
    const none = await lead.post('/api/bench/ports', { name: 'U3', address })
    expect(none.body.code).toBe('port.which-bench')
    expect(none.body.sentence).toContain('No bench')
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
