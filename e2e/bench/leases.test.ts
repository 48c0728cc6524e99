/**
 * Plans, runs and leases as the server keeps them, with an agent that the test itself plays: who may
 * drive a run, what a plan must still be when it is started, what each claim follows.
 */
import type { ApiError, Candidate, PlanPage, PlanShown, RunShown } from '@plain-slate/api'
import { contract } from '@plain-slate/api'
import type { DeviceFacts } from '@plain-slate/core'
import { idOfKey } from '@plain-slate/core'
import { FAMILIES_FOLDER, sendVolume } from '@plain-slate/demo'
import { serve } from '@plain-slate/server'
import type { Running } from '@plain-slate/server'
import { asSuperuser, cloneTemplate, configFor } from '@plain-slate/server/testing'
import { BENCH_SECRET, LEAD_FACTS, agentSees, answerLook } from '@plain-slate/server/testing/agent'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { INTAKE, SIGNED, linesOf } from './lines.ts'
import { built, until } from './whole-shop.ts'

/** The lead device with its loader raised already. */
const FACTS = { loaderVersion: 7 }
const AIM = 'tarn-H2.104.r4'

let server: Running
let address: string
let tamper: (sql: string) => Promise<void>
beforeAll(async () => {
  const { databaseUrl, superuserUrl } = await cloneTemplate('demo')
  tamper = (sql) => asSuperuser(superuserUrl, `set search_path = plain_slate, book; ${sql}`)
  const config = configFor(databaseUrl, { PLAIN_SLATE_FAMILIES: FAMILIES_FOLDER })
  server = await serve(config, '/nowhere', { version: 'test', jobs: true })
  address = `http://127.0.0.1:${server.port}`
  for (const name of ['tarn-loader-7-r4', AIM, 'tarn-H2.104.r5'])
    for (const volume of built(name).volumes) await sendVolume(address, BENCH_SECRET, volume, true)
  await until('all are proven', async () => {
    const { packages } = await get<{ packages: { state: string }[] }>('/api/shelf')
    return packages.filter(({ state }) => state === 'published').length === 3
  })
}, 120_000)
afterAll(() => server.stop())

async function ask<Body>(method: string, path: string, body?: object): Promise<Body> {
  const response = await fetch(address + path, {
    method,
    headers: { ...BENCH_SECRET, 'content-type': 'application/json' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  })
  return (await response.json()) as Body
}
const get = <Body>(path: string) => ask<Body>('GET', path)
const post = <Body>(path: string, body: object = {}) => ask<Body>('POST', path, body)
const refused = async (path: string, body: object = {}) => (await post<ApiError>(path, body)).code

const sees = (facts: Partial<DeviceFacts> | null) =>
  agentSees(address, 'P2', facts === null ? null : { ...FACTS, ...facts })
const plan = (more: object = {}) =>
  post<PlanShown>('/api/plans', { port: 'P2', package: AIM, ...more })
async function verdict(name = AIM, more: object = {}): Promise<string> {
  const fits = await post<Candidate[]>('/api/bench/ports/P2/fit', more)
  return fits.find((one) => idOfKey(one.package) === name)?.verdict ?? 'none'
}

/** The one slip of the lead device, with its plan taken and signed; made with the first run. */
let slip: { readonly at: string; readonly digest: string } | undefined
async function ready(): Promise<NonNullable<typeof slip>> {
  if (slip !== undefined) return slip
  const draft = { device: 'Brakken H2K', model: 'BRAK-H2K', intent: 'update' }
  const { number } = await post<{ number: string }>('/api/slips', draft)
  const at = `/api/slips/${number}`
  const reading = post(`${at}/read`, { port: 'P2' })
  await answerLook(address, FACTS)
  await reading
  await post(`${at}/lines`, linesOf({ ...INTAKE, 'route.package': AIM }))
  const digest = (await get<PlanPage>(`${at}/plan`)).now?.digest ?? ''
  await post(`${at}/plan`, { digest })
  await post(`${at}/lines`, linesOf(SIGNED))
  slip = { at, digest }
  return slip
}

/** A run of the lead plan, started and wanted. */
async function started(): Promise<string> {
  const { at, digest } = await ready()
  const run = await post<RunShown | ApiError>(`${at}/start`, { digest })
  if ('sentence' in run) throw new Error(run.sentence)
  return run.id
}
type Claimed = { epoch: number; commands: { kind: string }[]; journal: object[]; code?: string }
/** Who drives what, as the last claim gave it. */
const drivers = new Map<string, { readonly agent: string; readonly epoch: number }>()
async function claim(run: string, agent: string): Promise<Claimed> {
  const claimed = await post<Claimed>('/api/agent/claim', { agent, run })
  if (claimed.code === undefined) drivers.set(run, { agent, epoch: claimed.epoch })
  return claimed
}
const shown = (more: object = {}) => ({
  phase: { kind: 'doing' },
  next: 0,
  got: 0,
  at: 1000,
  runAt: 0,
  stepAt: 0,
  waiting: null,
  losses: 0,
  ...more,
})
const report = (run: string, agent: string, epoch: number, more: object = {}) =>
  post<{ journal?: number; code?: string }>('/api/agent/report', {
    agent,
    run,
    epoch,
    from: 0,
    entries: [],
    heard: 0,
    shown: shown(),
    ...more,
  })

const STOPPED = { kind: 'stopped', why: { kind: 'asked' } } as const

/** Stops whatever run is at the port and puts it away. */
async function clear(): Promise<void> {
  const runs = await get<RunShown[]>('/api/runs')
  for (const { id, state } of runs.filter((one) => one.port === 'P2')) {
    const driver = drivers.get(id)
    if (state === 'running' && driver !== undefined)
      await report(id, driver.agent, driver.epoch, { shown: shown({ phase: STOPPED }) })
    if (state === 'wanted') await post(`/api/runs/${id}/stop`)
    await post(`/api/runs/${id}/put-away`)
  }
}
beforeEach(async () => {
  await clear()
  await sees({})
})

describe('what fits the device at a port', () => {
  it('follows what the device says, and stays when something else changes', async () => {
    expect(await verdict()).toBe('fits')
    await sees({ board: 'r5' })
    expect([await verdict(), await verdict('tarn-H2.104.r5')]).toEqual(['does-not-fit', 'fits'])
    await sees({ loaderVersion: 6 })
    expect(await verdict()).toBe('fits-if')
    await sees({ floor: 7 })
    expect(await verdict()).toBe('does-not-fit')
    await sees({ carrier: 'S', returns: 3 })
    expect(await verdict()).toBe('fits')
  })

  it('says that nothing answers, and that nobody knows a model', async () => {
    await sees(null)
    expect(await refused('/api/bench/ports/P2/fit')).toBe('port.empty')
    await sees({ model: 'ZZ-1' })
    expect(await refused('/api/plans', { port: 'P2', package: AIM })).toBe('device.family')
  })
})

describe('a plan', () => {
  it('is the same byte by byte while nothing changes, and another when the device does', async () => {
    const first = await plan()
    expect((await plan()).digest).toBe(first.digest)
    await sees({ returns: 2 })
    expect((await plan()).digest).toBe(first.digest)
    await sees({ loaderVersion: 6 })
    expect((await plan()).digest).not.toBe(first.digest)
  })

  it('says in a sentence why there is none', async () => {
    const none = await post<ApiError>('/api/plans', { port: 'P2', package: 'tarn-H2.104.r5' })
    expect([none.code, none.sentence]).toEqual([
      'plan.none',
      expect.stringContaining('For board r5; this board is r4'),
    ])
  })

  it('that is no longer the one that was shown starts nothing', async () => {
    const { at, digest } = await ready()
    expect(await refused(`${at}/start`, { digest: '0'.repeat(64) })).toBe('slip.stale')
    await sees({ mode: 'normal' })
    expect(await refused(`${at}/start`, { digest })).toBe('slip.stale')
    expect((await get<RunShown[]>('/api/runs')).filter(({ state }) => state === 'wanted')).toEqual(
      [],
    )
  })
})

describe('a run', () => {
  it('holds its port until it was put away', async () => {
    const id = await started()
    const { at, digest } = await ready()
    expect(await refused(`${at}/start`, { digest })).toBe('slip.running')
    expect(await refused(`/api/runs/${id}/put-away`)).toBe('run.driven')
    expect(await refused(`/api/runs/${id}/take-up`)).toBe('run.driven')
  })

  it('is driven by one agent, under a rising epoch; an older one is told no', async () => {
    const id = await started()
    const first = await claim(id, 'agent a')
    expect(first.commands.length).toBeGreaterThan(20)
    expect((await claim(id, 'agent b')).code).toBe('run.driven')
    expect((await report(id, 'agent b', first.epoch)).code).toBe('run.driven')
    expect((await report(id, 'agent a', first.epoch)).journal).toBe(0)
    const renewed = await post<{ held: string[] }>('/api/agent/renew', {
      agent: 'agent a',
      held: [{ run: id, epoch: first.epoch + 1 }],
    })
    expect(renewed.held).toEqual([])
  })

  it('mirrors its journal without a gap or a double, however it is told', async () => {
    const id = await started()
    const { epoch } = await claim(id, 'agent a')
    const entries = [
      { kind: 'intend', command: 0, epoch },
      { kind: 'done', command: 0, evidence: 'Tavi' },
    ]
    expect((await report(id, 'agent a', epoch, { entries })).journal).toBe(2)
    expect((await report(id, 'agent a', epoch, { entries })).journal).toBe(2)
    const more = { from: 2, entries: [{ kind: 'intend', command: 1, epoch }] }
    expect((await report(id, 'agent a', epoch, more)).journal).toBe(3)
  })

  it('waits for hands at the command that asks, and takes no other word', async () => {
    const id = await started()
    const { epoch, commands } = await claim(id, 'agent a')
    const put = commands.findIndex(({ kind }) => kind === 'put')
    await report(id, 'agent a', epoch, { shown: shown({ next: put }) })
    expect((await get<RunShown>(`/api/runs/${id}`)).asked).toBeNull()
    expect(await refused(`/api/runs/${id}/done`, { command: put })).toBe('run.not-asked')
    await report(id, 'agent a', epoch)
    /* What was signed at Ready is not asked again. */
    expect((await get<RunShown>(`/api/runs/${id}`)).asked).toBeNull()
  })

  it('says why it stopped, in the book too', async () => {
    const id = await started()
    const { epoch } = await claim(id, 'agent a')
    const why = { kind: 'wrong-device', serial: 'TRN4490081C04' }
    await report(id, 'agent a', epoch, { shown: shown({ phase: { kind: 'stopped', why } }) })
    const run = await get<RunShown>(`/api/runs/${id}`)
    expect([run.state, run.word, run.why?.facts]).toEqual([
      'stopped',
      'stopped',
      { serial: 'TRN4490081C04' },
    ])
    const book = await fetch(address + contract.bookJsonl.path, { headers: BENCH_SECRET })
    const lines = (await book.text()).trim().split('\n')
    const last = JSON.parse(lines.at(-1) ?? '') as { act: string; facts: object }
    expect(last).toMatchObject({ act: 'run.stopped', facts: { run: id, why: 'wrong-device' } })
  })

  it('that was stopped is taken up at a higher epoch, with its journal', async () => {
    const id = await started()
    const first = await claim(id, 'agent a')
    const entries = [{ kind: 'intend', command: 0, epoch: first.epoch }]
    const stopped = shown({ phase: { kind: 'stopped', why: { kind: 'asked' } } })
    await report(id, 'agent a', first.epoch, { entries, shown: stopped })
    await post(`/api/runs/${id}/take-up`)
    const second = await claim(id, 'agent b')
    expect(second.epoch).toBeGreaterThan(first.epoch)
    expect(second.journal).toEqual(entries)
    expect((await report(id, 'agent a', first.epoch)).code).toBe('run.driven')
  })
})

describe('words of people', () => {
  const state = async (id: string) => (await get<RunShown>(`/api/runs/${id}`)).state
  const lapse = (id: string) =>
    tamper(`update runs set until = now() - interval '1 s' where id = '${id}'`)
  const stopOf = async (id: string) => (await get<RunShown>(`/api/runs/${id}`)).stop
  type Heard = { runs: { id: string; wanted: boolean; stop: number }[] }
  const heard = async (id: string) =>
    (await get<Heard>('/api/agent/work')).runs.find((run) => run.id === id)

  it('a stop is shown as asked until whoever drives it has met it', async () => {
    const id = await started()
    const { epoch } = await claim(id, 'agent a')
    await post(`/api/runs/${id}/stop`)
    expect([await state(id), await stopOf(id)]).toEqual(['running', 'to-be-heard'])
    expect(await heard(id)).toMatchObject({ wanted: false, stop: 1 })
    await report(id, 'agent a', epoch, { heard: 1 })
    expect(await stopOf(id)).toBe('moment')
    await report(id, 'agent a', epoch, { heard: 1, shown: shown({ phase: STOPPED }) })
    expect([await state(id), await stopOf(id), await heard(id)]).toMatchObject([
      'stopped',
      null,
      { wanted: false, stop: 0 },
    ])
  })

  it('a stop of a run whose lease has lapsed is an order still, and frees no port', async () => {
    const id = await started()
    const { epoch } = await claim(id, 'agent a')
    await lapse(id)
    await post(`/api/runs/${id}/stop`)
    expect([await state(id), await stopOf(id)]).toEqual(['running', 'nobody-drives'])
    expect(await refused(`/api/runs/${id}/put-away`)).toBe('run.driven')
    /* Nobody being there, any agent may claim it, to meet the order. */
    expect(await heard(id)).toMatchObject({ wanted: true, stop: 1 })
    /* The one who drove it lives after all: it goes on being asked. */
    expect((await report(id, 'agent a', epoch)).journal).toBe(0)
    expect(await heard(id)).toMatchObject({ stop: 1 })
    expect(await state(id)).toBe('running')
  })

  it('a report sets nothing running again that stands still', async () => {
    const id = await started()
    const { epoch } = await claim(id, 'agent a')
    await post(`/api/runs/${id}/stop`)
    await report(id, 'agent a', epoch, { heard: 1, shown: shown({ phase: STOPPED }) })
    expect((await report(id, 'agent a', epoch)).code).toBe('run.driven')
    expect(await state(id)).toBe('stopped')
  })

  it('of parallel take-ups one is taken, and of a put-away beside them at most the one', async () => {
    const id = await started()
    const { epoch } = await claim(id, 'agent a')
    await report(id, 'agent a', epoch, { shown: shown({ phase: STOPPED }) })
    const words = ['take-up', 'take-up', 'take-up', 'put-away', 'put-away']
    const said = await Promise.all(
      words.map((word) => post<ApiError | RunShown>(`/api/runs/${id}/${word}`)),
    )
    expect(said.filter((one) => !('code' in one))).toHaveLength(1)
    const { state: now } = await get<RunShown>(`/api/runs/${id}`)
    expect((await heard(id))?.wanted ?? false).toBe(now === 'wanted')
  })

  it('a take-up that the driver itself makes needless undoes no later stop', async () => {
    const id = await started()
    const { epoch } = await claim(id, 'agent a')
    await lapse(id)
    await post(`/api/runs/${id}/take-up`)
    /* It drives still. */
    await report(id, 'agent a', epoch)
    await post('/api/agent/renew', { agent: 'agent a', held: [{ run: id, epoch }] })
    await post(`/api/runs/${id}/stop`)
    expect(await heard(id)).toMatchObject({ wanted: false, stop: 1 })
    await report(id, 'agent a', epoch, { heard: 1, shown: shown({ phase: STOPPED }) })
    expect(await state(id)).toBe('stopped')
  })

  it('a stop before anybody claimed it is met by that, and the next order has its own number', async () => {
    const id = await started()
    await post(`/api/runs/${id}/stop`)
    expect(await state(id)).toBe('stopped')
    await post(`/api/runs/${id}/take-up`)
    const { epoch } = await claim(id, 'agent a')
    await post(`/api/runs/${id}/stop`)
    await post(`/api/runs/${id}/stop`)
    expect(await heard(id)).toMatchObject({ stop: 2 })
    await report(id, 'agent a', epoch, { heard: 2, shown: shown({ phase: STOPPED }) })
  })
})

describe('one bad port', () => {
  it('is told as such, and hurts no other', async () => {
    const facts = { ...LEAD_FACTS, model: 'BRAK\u0000H2K' }
    const ports = [
      { name: 'P1', facts: null, odd: 'facts.serial: no text' },
      { name: 'P2', facts: { ...LEAD_FACTS, ...FACTS }, odd: null },
      { name: 'P3', facts: { ...facts, serial: 'TRN4490081C04' }, odd: null },
    ]
    expect(await post('/api/agent/ports', { agent: 'agent a', ports })).toEqual({})
    type Tile = { name: string; odd: string | null; seen: { model: string } | null }
    const tiles = (await get<{ ports: Tile[] }>('/api/bench')).ports
    const at = (name: string) => tiles.find((one) => one.name === name)
    expect(at('P1')?.odd).toBe('facts.serial: no text')
    expect([at('P2')?.seen?.model, at('P3')?.seen?.model]).toEqual(['BRAK-H2K', 'BRAK\ufffdH2K'])
    expect(await verdict()).toBe('fits')
  })
})

describe('an archive on its way in', () => {
  const send = async (query: string, init: RequestInit) => {
    const response = await fetch(`${address}/api/shelf/archives?${query}`, {
      method: 'POST',
      ...init,
      headers: { ...BENCH_SECRET, 'content-type': 'application/octet-stream', ...init.headers },
    })
    return (await response.json()) as ApiError
  }
  const archives = async () => (await get<{ archives: object[] }>('/api/shelf')).archives.length

  it('that is not what its maker published is refused, and nothing of it stays', async () => {
    const before = await archives()
    const other = await send(`name=x.tar&sha256=${'0'.repeat(64)}`, { body: 'not that' })
    expect([other.code, await archives()]).toEqual(['archive.other', before])
  })

  it('without bytes, a name or a lawful digest is refused in a sentence', async () => {
    expect((await send('name=x.tar', { body: '' })).code).toBe('archive.length')
    expect((await send('name=', { body: 'x' })).code).toBe('input.invalid')
    expect((await send('name=x.tar&sha256=ABC', { body: 'x' })).code).toBe('input.invalid')
  })

  it('that is no archive is shelved as refused, by rule and offset', async () => {
    await send('name=noise.tar', { body: 'x'.repeat(2048) })
    type Row = { name: string; state: string; refusal: { rule: string; offset: number } | null }
    const row = async () =>
      (await get<{ archives: Row[] }>('/api/shelf')).archives.find(
        ({ name }) => name === 'noise.tar',
      )
    await until('it is read', async () => (await row())?.state !== 'reading')
    expect(await row()).toMatchObject({ state: 'refused', refusal: { offset: 0 } })
  })
})
