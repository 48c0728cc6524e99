/**
 * The computer of a bench: what it tells stands on the Bench and at Ready, what a later step needs is looked at before
 * the first, and on a simulated bench a missing driver or another program leaves a device unheard.
 */
import type { ApiError, Bench as BenchShown, Job } from '@plain-slate/api'
import type { Computer } from '@plain-slate/core'
import type { Bench, Browser } from '@plain-slate/server/testing'
import { cloneTemplate } from '@plain-slate/server/testing'
import { agentSees } from '@plain-slate/server/testing/agent'
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest'
import { LEAVES } from './lines.ts'
import { Slip, shelvedBench } from './job-slip.ts'
import { LEAD, WholeShop, until } from './whole-shop.ts'

const ALL: Computer = {
  drivers: [
    { id: 'tarn', version: 4 },
    { id: 'alder', version: 7 },
  ],
  rivals: [],
  powerSaving: [],
  hubs: [],
  sleepMinutes: null,
}

describe('what a computer tells', () => {
  let bench: Bench
  let ilse: Browser
  let slip: Slip
  beforeAll(async () => {
    bench = await shelvedBench()
    ilse = await bench.at('Ilse')
    slip = await Slip.open(bench, ilse, 'P1')
    await slip.planned()
  }, 60_000)
  afterAll(() => bench.close())

  const tells = (more: Partial<Computer> | null, freeMiB = 4096) =>
    agentSees(
      bench.address,
      slip.port,
      { serial: slip.serial, mode: 'normal' },
      {
        version: '0.1.0',
        freeMiB,
        probe: more === null ? null : { ...ALL, ...more },
        bench: null,
      },
    )
  const failing = async () =>
    (await slip.ready()).checks
      .filter(({ check, holds }) => !holds && /driver|rival|power|sleep|disk/.test(check))
      .map(({ check }) => check)
  const signs = async () => (await slip.ready()).signed.map(({ topic }) => topic)
  const shown = async () => (await ilse.get<BenchShown>('/api/bench')).body.computers[0]

  it('is looked at before the first step, and people sign only where nobody tells', async () => {
    await tells(null)
    expect(await signs()).toContain('ready.bench')
    await tells({})
    expect(await failing()).toEqual([])
    expect(await signs()).not.toContain('ready.bench')
    await tells({ drivers: [] })
    expect(await failing()).toEqual(['driver'])
    await tells({ drivers: [{ id: 'alder', version: 7 }] })
    expect(await failing()).toEqual(['driver'])
    await tells({ rivals: [{ port: 'P2', program: 'a sync tool' }], powerSaving: ['P2'] })
    expect(await failing()).toEqual([])
    await tells({ rivals: [{ port: 'P1', program: 'a sync tool' }], powerSaving: ['P1'] })
    expect(await failing()).toEqual(['rival', 'power'])
    await tells({ sleepMinutes: 1 })
    expect(await failing()).toEqual(['sleep'])
    await tells({}, 100)
    expect(await failing()).toEqual(['disk'])
  })

  it('stands on the Bench, with each driver’s age and whether its agent is of our version', async () => {
    await tells({ drivers: [{ id: 'tarn', version: 3 }] })
    const one = await shown()
    expect(one?.drivers.find(({ id }) => id === 'tarn')).toMatchObject({
      is: 'old',
      version: 3,
      newest: 4,
      modes: ['normal mode', 'the loader', 'rescue'],
    })
    expect(one?.drivers.find(({ id }) => id === 'fen-rescue')).toMatchObject({ is: 'missing' })
    expect([one?.same, one?.ports]).toEqual([true, ['P1']])
    await tells(null)
    expect([(await shown())?.told, (await shown())?.drivers]).toEqual([null, []])
  })

  it('keeps a device from being led where it would not be heard', async () => {
    await slip.say(LEAVES)
    const deep = async () =>
      (await ilse.post<Job & ApiError>(slip.at('read'), { port: slip.port, deep: true })).body
    await tells({ drivers: [{ id: 'tarn', version: 1 }] })
    const refused = await deep()
    expect(refused.code).toBe('look.driver')
    expect(refused.sentence).toContain('in the loader: the handheld driver is missing')
    await tells({ drivers: [{ id: 'tarn', version: 2 }] })
    expect((await deep()).look?.deep).toBe(true)
  })
})

describe('on a simulated bench', () => {
  let shop: WholeShop
  afterEach(() => shop.close())

  it('a device is unheard without its driver, or where another program holds its port', async () => {
    const { databaseUrl } = await cloneTemplate('demo')
    shop = new WholeShop(databaseUrl, 0)
    await shop.open([], [LEAD])
    const told = async () => (await shop.call<BenchShown>('GET', '/api/bench')).computers[0]
    const seen = (is: boolean) => async () => ((await shop.port('P2')).seen !== null) === is
    expect((await told())?.drivers.every(({ is }) => is === 'there')).toBe(true)
    await shop.hands({ kind: 'driver', driver: 'tarn', version: null })
    await until('it is heard no more', seen(false))
    expect((await told())?.drivers.find(({ id }) => id === 'tarn')?.is).toBe('missing')
    await shop.hands({ kind: 'driver', driver: 'tarn', version: 2 })
    await until('it is heard again', seen(true))
    await shop.hands({ kind: 'rival', port: 'P1', program: 'a sync tool' })
    await until('that is told', async () => (await told())?.told?.rivals.length === 1)
    expect(await seen(true)()).toBe(true)
    await shop.hands({ kind: 'rival', port: 'P2', program: 'a sync tool' })
    await until('it is heard no more', seen(false))
    await shop.hands({ kind: 'rival', port: 'P2', program: null })
    await until('it is heard again', seen(true))
    const { sentence } = await shop.call<ApiError>('POST', '/api/bench/hands', {
      kind: 'driver',
      driver: 'tarn',
      version: 9,
    })
    expect(sentence).toContain('none newer than 4')
  }, 60_000)
})
