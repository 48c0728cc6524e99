/** What people say of a run, in whatever order and however many at once; and what one bad port says. */
import type { ApiError, RunShown } from '@plain-slate/api'
import { LEAD_FACTS } from '@plain-slate/server/testing/agent'
import { describe, expect, it } from 'vitest'
import {
  FACTS,
  STOPPED,
  claim,
  get,
  playShop,
  post,
  refused,
  report,
  shown,
  started,
  takeUp,
  tamper,
  verdict,
} from './played-shop.ts'

playShop()

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
    await takeUp(id)
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
    await takeUp(id)
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
    expect(await post('/api/agent/ports', { agent: 'agent a', ports })).toEqual({
      ports: [],
    })
    type Tile = { name: string; odd: string | null; seen: { model: string } | null }
    const tiles = (await get<{ ports: Tile[] }>('/api/bench')).ports
    const at = (name: string) => tiles.find((one) => one.name === name)
    expect(at('P1')?.odd).toBe('facts.serial: no text')
    expect([at('P2')?.seen?.model, at('P3')?.seen?.model]).toEqual(['BRAK-H2K', 'BRAK\ufffdH2K'])
    expect(await verdict()).toBe('fits')
  })
})
