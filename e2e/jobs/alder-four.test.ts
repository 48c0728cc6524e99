/** More jobs of the smaller phones: what somebody left half written, and one whose owner leaves his carrier. */
import { tarOf } from '@plain-slate/archives'
import type { DemoDevice, Line } from '@plain-slate/demo'
import { ALDER_4, buildPackage, draftOf } from '@plain-slate/demo'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { WholeShop } from '../bench/whole-shop.ts'
import { built } from '../bench/whole-shop.ts'
import { deviceOf } from '../bench/world.ts'
import { everything } from './answers.ts'
import { HALF_WRITTEN } from './devices.ts'
import { openShop, person } from './shop.ts'
import { Refused, Technician } from './technician.ts'

const OPEN_BUILDS = ['20-2632.0-HO', '20-2640.1-HO']
/** Alder 4 as Skerry sells it. */
const SOLD_BY_S: Line = {
  ...ALDER_4,
  key: 'alder 4 of S',
  builds: ['20-2632.0-HS', '20-2640.1-HS'],
  targets: ALDER_4.targets.map((one) => ({ ...one, carriers: ['S'] })),
  rowOf: { ...ALDER_4, builds: OPEN_BUILDS },
}
const requires = { minLoader: 30, maxLoader: 32 }
const CARRIERS = [
  draftOf(SOLD_BY_S, '20-2632.0-HS', {
    release: 20,
    patchDate: '2026-07-01',
    loaderVersion: 30,
    radioVersion: '20.0',
    requires,
  }),
  draftOf(SOLD_BY_S, '20-2640.1-HS', {
    release: 20,
    patchDate: '2026-10-01',
    loaderVersion: 31,
    radioVersion: '20.3',
    requires,
  }),
]
/** The newest in four volumes, its variant part in two forms. */
const FOUR = draftOf(
  ALDER_4,
  '20-2640.1-HO',
  {
    id: 'alder-4-of-four',
    title: '20-2640.1-HO in four',
    release: 20,
    patchDate: '2026-10-01',
    loaderVersion: 31,
    radioVersion: '20.3',
    requires,
  },
  { volumes: [['kernel', 'rescue'], ['main', 'support'], ['variant']], forms: true },
)
/** It loops: its kernel is of another build than what stands beside it. */
const LOOPS: DemoDevice = {
  ...deviceOf('COR4NB201177'),
  serial: 'COR4NB200908',
  name: 'loops, four archives lie beside it',
  port: null,
}
const bought = deviceOf('COR4NB200423')
const sold = (serial: string): DemoDevice => ({
  ...bought,
  serial,
  name: 'sold by Skerry, an account on it',
  line: SOLD_BY_S,
  build: '20-2632.0-HS',
  loader: 30,
  fused: { ...bought.fused, carrier: 'S' },
  more: { account: 'on' },
})
const SIGNED_OUT = sold('COR4NB200916')
const LEFT_ON = sold('COR4NB200926')

let shop: WholeShop
beforeAll(async () => {
  const packages = ['alder-20-2638.0-HO', 'alder-20-2640.1-HO', 'alder-20-2640.1-HS']
  const devices = [HALF_WRITTEN, SIGNED_OUT, LEFT_ON, LOOPS]
  shop = await openShop(packages, [], { drafts: [...CARRIERS, FOUR], devices })
}, 240_000)
afterAll(() => shop.close())

describe('job 6: half written by somebody, to be stock and closed', () => {
  it('is told by its digests, erased only where nothing else makes sure that it starts, closed last', async () => {
    const { serial } = HALF_WRITTEN
    const customer = { device: 'Alder 4', model: 'CORV-4M', intent: 'relock' } as const
    const answers = { ...everything('not-there'), 'survive.photos': 'may-go' }
    const job = await Technician.takesIn(shop, { ...customer, answers }, serial, 'P1')
    await job.hands({ kind: 'keys', serial, to: 'loader' })
    await job.read()
    const { stands } = await job.read(true)
    /* Mixed: its kernel is of one build, its main of none that is known. */
    expect(stands?.set).toBeNull()
    const on = Object.fromEntries(stands?.parts.map(({ role, builds }) => [role, builds]) ?? [])
    expect(on['kernel']).toEqual([])
    expect(on['main']).toEqual([])
    expect(on['support']).toEqual(['20-2638.0-HO'])

    /* Newer data loop it as well, and nobody can read by what they were used. While it may still start that is not decided. */
    const codes = async (title: string) =>
      (await job.routes()).routes
        .find((one) => one.title === title)
        ?.findings.map(({ code }) => code)
    expect(await codes('20-2638.0-HO')).toBeUndefined()
    await job.say({ 'history.starts': 'stops' })
    expect(await codes('20-2640.1-HO')).toContain('fit.promise.data.unseen')
    expect(await codes('20-2638.0-HO')).toContain('fit.promise.data.cleared')
    await job.say({ 'survive.photos': 'must' })
    expect(await codes('20-2638.0-HO')).toBeUndefined()
    await job.say({ 'survive.photos': 'may-go' })

    const { routes } = await job.routes()
    /* What takes nothing comes first. */
    expect(routes[0]?.title).toBe('20-2640.1-HO')
    const road = routes.find(
      ({ title, route }) => title === '20-2638.0-HO' && route.includes('by images'),
    )
    const { taken } = await job.takes(road?.route ?? '')
    const kinds = taken?.shown.steps.map(({ kind }) => kind) ?? []
    expect(kinds.lastIndexOf('erase')).toBeGreaterThan(kinds.lastIndexOf('write'))
    expect(kinds.lastIndexOf('erase')).toBeLessThan(kinds.indexOf('first-start'))
    expect(kinds.indexOf('first-start')).toBeLessThan(kinds.indexOf('lock'))
    expect(kinds.indexOf('lock')).toBeLessThan(kinds.lastIndexOf('first-start'))
    const consent = (await job.ready()).signed.find(({ topic }) => topic === 'fate.wiped')
    expect(consent?.signed).toBe(false)
    await job.signs()
    const end = await job.ends(await job.starts())
    expect(end.word).toBe('done')
    expect(shop.flash(serial).wrong(built('alder-20-2638.0-HO').manifest)).toEqual([])
    expect(shop.flash(serial).readable).toEqual([])
    const after = await job.read()
    expect(after.facts.find(({ fact }) => fact === 'bootLock')?.value).toBe('closed')
    expect(after.worse).toEqual([])
  }, 120_000)
})

describe('job 8: a restart loop, and the package in four archives', () => {
  it('is one package once all four are here, whatever they are called, and goes on in the form that keeps', async () => {
    const { serial } = LOOPS
    const { id = '' } = FOUR.more
    const customer = { device: 'Alder 4', model: 'CORV-4N', intent: 'restore' } as const
    const answers = {
      ...everything('not-there'),
      'survive.photos': 'must',
      'history.starts': 'stops',
    }
    const job = await Technician.takesIn(shop, { ...customer, answers }, serial, 'P4')
    await job.hands({ kind: 'keys', serial, to: 'loader' })
    await job.read()
    await job.read(true)
    const four = async () =>
      (await job.routes()).routes.find(({ title }) => title === FOUR.more.title)
    const volumes = buildPackage(FOUR).volumes
    /* Three of four; then the fourth by name, with another build's bytes in it. */
    await shop.shelve(id, (at) => at !== 2)
    const here = async () =>
      (await job.why(id)).findings.find(({ code }) => code.startsWith('fit.package.here'))?.code
    expect(await here()).toBe('fit.package.here.fetch')
    const lacking = await four()
    await expect(job.takes(lacking?.route ?? '')).resolves.toMatchObject({
      now: expect.anything() as unknown,
    })
    await expect(job.starts()).rejects.toBeInstanceOf(Refused)
    const stranger = { name: 'main.img', bytes: Buffer.alloc(8192, 7) }
    await shop.sends(volumes[2]?.file ?? '', tarOf([stranger]))
    expect(await here()).toBe('fit.package.here.fetch')
    /* The right one, under a name that is there already. */
    await shop.shelve(id, (at) => at === 2)
    await expect.poll(here, { timeout: 20_000 }).toBe('fit.package.here.fits')
    const road = await four()
    const { taken } = await job.takes(road?.route ?? '')
    const told = taken?.shown.writes.map(({ partition, reason }) => `${partition} ${reason}`)
    expect(told).toContain('variant wiping')
    expect(taken?.shown.fates.every(({ fate }) => fate === 'kept')).toBe(true)
    const before = shop.flash(serial).marks
    await job.signs()
    const end = await job.ends(await job.starts())
    expect(end.word).toBe('done')
    expect(shop.flash(serial).marks).toEqual(before)
    expect(shop.flash(serial).wrong(built('alder-20-2640.1-HO').manifest)).toEqual([])
    const after = await job.read()
    expect(after.facts.find(({ fact }) => fact === 'build')?.value).toBe('20-2640.1-HO')
    expect(after.worse).toEqual([])
  }, 120_000)
})

describe('job 16: a carrier’s phone whose owner is free to choose', () => {
  const customer = { device: 'Alder 4', model: 'CORV-4N', intent: 'variant-change' } as const
  const answers = {
    ...everything('not-there'),
    ...{ 'survive.photos': 'may-go', 'survive.cards': 'may-go', 'survive.passkeys': 'may-go' },
    'owner.account': 'owner-able',
    'want.row': 'HI/O',
  }

  it('has both judged, its account taken off and a restart before, and keeps its network lock', async () => {
    const { serial } = SIGNED_OUT
    const lead = await person(shop, 'Ilse')
    await lead.decides({ accounts: 'before' })
    const job = await Technician.takesIn(shop, { ...customer, answers }, serial, 'P2')
    /* Cards and keys for signing in die with the screen's lock: that is said before it is taken off. */
    const { leave } = await job.read()
    const asked = leave?.items.map(({ item, facts }) => [item, facts['dies'] ?? null])
    expect(asked?.slice(0, 2)).toEqual([
      ['accounts', 'cards, passkeys'],
      ['restart', null],
    ])
    expect(leave?.items.every(({ holds, item }) => holds === (item === 'charge'))).toBe(true)
    await job.hands({ kind: 'sign-out', serial })
    await job.leaves()
    await job.read(true)
    const { routes } = await job.routes()
    const titles = routes.map(({ title }) => title)
    expect(titles).toEqual(expect.arrayContaining(['20-2640.1-HO', '20-2640.1-HS']))
    const open = routes.find(({ title }) => title === '20-2640.1-HO')
    const codes = open?.findings.map(({ code }) => code)
    expect(codes).toEqual(
      expect.arrayContaining(['fit.promise.data.wiped', 'fit.promise.network.stays']),
    )
    const end = await job.does(open?.route ?? '')
    expect(end.word).toBe('done')
    expect(shop.flash(serial).readable).toEqual([])
    const after = await job.read()
    expect(after.facts.find(({ fact }) => fact === 'build')?.value).toBe('20-2640.1-HO')
    expect(after.worse).toEqual([])
  }, 120_000)

  it('asks for the account that was left on it, and is not proven', async () => {
    const { serial } = LEFT_ON
    const lead = await person(shop, 'Ilse')
    await lead.decides({ accounts: 'proof' })
    const job = await Technician.readsIn(shop, { ...customer, answers }, serial, 'P3')
    const open = (await job.routes()).routes.find(({ title }) => title === '20-2640.1-HO')
    await job.takes(open?.route ?? '')
    await job.signs()
    const id = await job.starts()
    /* Its set-up cannot be gone through: nothing answers, and the page says what it may ask for. */
    const shut = await job.follows(id, 'it waits for an answer', ({ steps, step, waiting }) => {
      const proves = steps[step - 1]?.kind === 'prove'
      return proves && waiting?.mode?.kind === 'system' && waiting.seen === null
    })
    expect(shut.state).toBe('running')
    expect((await job.job()).family?.asksAccount).toBe(true)
  }, 120_000)
})
