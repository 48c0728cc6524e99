/**
 * Plans, runs and leases as the server keeps them, with an agent that the test itself plays: who may
 * drive a run, what a plan must still be when it is started, what each claim follows.
 */
import type { ApiError, RunShown } from '@plain-slate/api'
import { contract } from '@plain-slate/api'
import { BENCH_SECRET, atShell } from '@plain-slate/server/testing/agent'
import { describe, expect, it } from 'vitest'
import {
  AIM,
  address,
  claim,
  get,
  plan,
  playShop,
  post,
  ready,
  refused,
  report,
  sees,
  shown,
  started,
  takeUp,
  verdict,
} from './played-shop.ts'
import { until } from './whole-shop.ts'

playShop()

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
    expect(await refused('/api/judge', { port: 'P2' })).toBe('port.empty')
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
      { kind: 'done', command: 0, evidence: { is: 'person', by: 'Tavi' } },
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
    await takeUp(id)
    const second = await claim(id, 'agent b')
    expect(second.epoch).toBeGreaterThan(first.epoch)
    expect(second.journal).toEqual(entries)
    expect((await report(id, 'agent a', first.epoch)).code).toBe('run.driven')
  })
})

describe('an archive on its way in', () => {
  const send = async (query: string, init: RequestInit) => {
    const response = await fetch(`${address}/api/shelf/archives?${query}`, {
      method: 'POST',
      ...init,
      headers: {
        ...(await atShell(address)),
        'content-type': 'application/octet-stream',
        ...init.headers,
      },
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
