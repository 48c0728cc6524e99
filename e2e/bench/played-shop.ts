/**
 * A shop whose agent the test itself plays, over the API: who may drive a run, and what each claim follows.
 * Each file that asks for one has its own, cleared before every test.
 */
import type { ApiError, Judged, PlanPage, PlanShown, RunShown } from '@plain-slate/api'
import type { DeviceFacts } from '@plain-slate/core'
import { idOfKey, worst } from '@plain-slate/core'
import { FAMILIES_FOLDER, sendVolume } from '@plain-slate/demo'
import { serve } from '@plain-slate/server'
import type { Running } from '@plain-slate/server'
import { asSuperuser, cloneTemplate, configFor } from '@plain-slate/server/testing'
import { agentSees, answerLook, atShell, headersTo } from '@plain-slate/server/testing/agent'
import { afterAll, beforeAll, beforeEach } from 'vitest'
import { INTAKE, SIGNED, linesOf } from './lines.ts'
import { built, until } from './whole-shop.ts'

/** The lead device with its loader raised already. */
export const FACTS = { loaderVersion: 7 }
export const AIM = 'tarn-H2.104.r4'

let server: Running
export let address: string
export let tamper: (sql: string) => Promise<void>

async function ask<Body>(method: string, path: string, body?: object): Promise<Body> {
  const response = await fetch(address + path, {
    method,
    headers: { ...(await headersTo(address, path)), 'content-type': 'application/json' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  })
  return (await response.json()) as Body
}
export const get = <Body>(path: string) => ask<Body>('GET', path)
export const post = <Body>(path: string, body: object = {}) => ask<Body>('POST', path, body)
export const refused = async (path: string, body: object = {}) =>
  (await post<ApiError>(path, body)).code

/** What the played agent saw last. */
let seen: Partial<DeviceFacts> | null = null
export const sees = (facts: Partial<DeviceFacts> | null) => {
  seen = facts
  return agentSees(address, 'P2', facts === null ? null : { ...FACTS, ...facts })
}
export const plan = (more: object = {}) =>
  post<PlanShown>('/api/plans', { port: 'P2', package: AIM, ...more })
/** The verdict on a package by what the device is and how it stands: nobody reads a table here, or shelves a way back. */
export async function verdict(name = AIM, more: object = {}): Promise<string> {
  const { candidates } = await post<Judged>('/api/judge', { port: 'P2', ...more })
  const found = candidates.find((one) => idOfKey(one.package) === name)?.findings
  const rest = found?.filter(({ rule }) => /^(identity|state)\./.test(rule))
  return rest === undefined ? 'none' : worst(rest.map((one) => one.verdict))
}

/** The one slip of the lead device, with its plan taken and signed; made with the first run. */
let slip: { readonly at: string; readonly digest: string } | undefined
export async function ready(): Promise<NonNullable<typeof slip>> {
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

/** Takes a run up, its agent just heard: on a busy machine a test takes longer than an agent may be silent. */
export async function takeUp(run: string): Promise<RunShown | ApiError> {
  await sees(seen)
  return post<RunShown | ApiError>(`/api/runs/${run}/take-up`)
}

/** A run of the lead plan, started and wanted. */
export async function started(): Promise<string> {
  const { at, digest } = await ready()
  await sees(seen)
  const run = await post<RunShown | ApiError>(`${at}/start`, { digest })
  if ('sentence' in run) throw new Error(run.sentence)
  return run.id
}
type Claimed = { epoch: number; commands: { kind: string }[]; journal: object[]; code?: string }
/** Who drives what, as the last claim gave it. */
const drivers = new Map<string, { readonly agent: string; readonly epoch: number }>()
export async function claim(run: string, agent: string): Promise<Claimed> {
  const claimed = await post<Claimed>('/api/agent/claim', { agent, run })
  if (claimed.code === undefined) drivers.set(run, { agent, epoch: claimed.epoch })
  return claimed
}
export const shown = (more: object = {}) => ({
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
export const report = (run: string, agent: string, epoch: number, more: object = {}) =>
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

export const STOPPED = { kind: 'stopped', why: { kind: 'asked' } } as const

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
/** Has this file's tests run in a shop of their own. */
export function playShop(): void {
  slip = undefined
  beforeAll(async () => {
    const { databaseUrl, superuserUrl } = await cloneTemplate('demo')
    tamper = (sql) => asSuperuser(superuserUrl, `set search_path = plain_slate, book; ${sql}`)
    const config = configFor(databaseUrl, { PLAIN_SLATE_FAMILIES: FAMILIES_FOLDER })
    server = await serve(config, '/nowhere', { version: 'test', jobs: true })
    address = `http://127.0.0.1:${server.port}`
    for (const name of ['tarn-loader-7-r4', AIM, 'tarn-H2.104.r5'])
      for (const volume of built(name).volumes)
        await sendVolume(address, await atShell(address), volume, { whole: true, maker: 'Brakken' })
    await until('all are proven', async () => {
      const { packages } = await get<{ packages: { state: string }[] }>('/api/shelf')
      return packages.filter(({ state }) => state === 'published').length === 3
    })
  }, 120_000)
  afterAll(() => server.stop())
  beforeEach(async () => {
    await clear()
    await sees({})
  })
}
