/** The jobs of the phones: two writing modes, floors by part, a lock that opens. */
import type { Bench } from '@plain-slate/api'
import type { UnsignedPermit } from '@plain-slate/core'
import { PERMIT_TOPIC, permitText } from '@plain-slate/core'
import type { DemoDevice } from '@plain-slate/demo'
import { DEMO_DEVICES, deviceIdOf, permitFile } from '@plain-slate/demo'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { WholeShop } from '../bench/whole-shop.ts'
import { built } from '../bench/whole-shop.ts'
import { linesOf } from '../bench/lines.ts'
import { everything } from './answers.ts'
import { openShop, person } from './shop.ts'
import { Technician } from './technician.ts'

const LOOPING = 'COR4NB201177'
const sold = DEMO_DEVICES.find(({ serial }) => serial === 'COR4NB201406')
if (sold === undefined) throw new Error('no phone that goes back')
/** Its loader is newer than the one of the build that it goes back to. */
const GOES_BACK: DemoDevice = {
  ...sold,
  serial: 'COR4NB201914',
  strange: { loader: '20-2638.0-HO' },
  loader: 31,
  port: null,
}
const TOO_HIGH = 'COR4MB200424'
const STOCK_OPEN = 'COR5MC300420'
const SOLD_BY_S = 'COR5NC310403'
const SERVICED = 'COR4MB200413'

const NOT_THERE = everything('not-there')

let shop: WholeShop
beforeAll(async () => {
  const packages = [
    'alder-19-2620.1-HO',
    'alder-20-2638.0-HO',
    'alder-20-2640.1-HO',
    'alder-20-2634.0-HO',
    'alder-21-2641.1-HO',
    'alder-variant-20-2634.0-HO',
    'alder-service-20-2638.9',
  ]
  const serials = [LOOPING, TOO_HIGH, STOCK_OPEN, SOLD_BY_S, SERVICED]
  shop = await openShop(packages, serials, { devices: [GOES_BACK] })
}, 240_000)
afterAll(() => shop.close())

describe('job 1: a restart loop since a clean write elsewhere, photos to stay', () => {
  it('is told by its digests, written where it differs, cut on a bad cable and taken up at the byte', async () => {
    const customer = { device: 'Alder 4', model: 'CORV-4N', intent: 'restore' } as const
    const answers = { ...NOT_THERE, 'survive.photos': 'must', 'history.starts': 'stops' }
    const job = await Technician.takesIn(shop, { ...customer, answers }, LOOPING, 'P4')
    await job.hands({ kind: 'keys', serial: LOOPING, to: 'loader' })
    await job.read()
    const read = await job.read(true)
    expect(read.stands?.set ?? null).toBeNull()
    /* What its data were last used by nobody could read: only what is no older than any build surely opens them. */
    const { routes } = await job.routes()
    const [best] = routes
    expect(new Set(routes.map(({ title }) => title))).toEqual(new Set(['20-2640.1-HO']))
    expect(best?.findings.map(({ code }) => code)).toContain('fit.promise.data.unseen')
    const { taken } = await job.takes(best?.route ?? '')
    const writes = taken?.shown.writes ?? []
    /* Its kernel is of that build already, and goes on with what is signed with it; rescue and variant are the same in all. */
    const told = writes.map(({ partition, reason }) => `${partition} ${reason}`)
    expect(told).toEqual(
      expect.arrayContaining([
        'modem differs',
        'kernel together-with',
        'main differs',
        'rescue same-digest',
        'variant same-digest',
      ]),
    )

    /* A device that does not start is asked for no switch of its settings, and of a copy whether one is wanted at all. */
    const { signed } = await job.ready()
    expect(signed.map(({ topic }) => topic)).not.toContain('ready.permission')
    const copy = signed.find(({ topic }) => topic === 'ready.backup')
    expect(copy?.answers).toEqual(['impossible', 'not-wanted'])
    const before = shop.flash(LOOPING).marks
    await job.signs()
    await job.hands({ kind: 'cut', serial: LOOPING, piece: 2, bytes: 40_960, how: 'cable' })
    const losses = async (): Promise<Record<string, number>> => {
      const { cables } = await shop.call<Bench>('GET', '/api/bench')
      return Object.fromEntries(cables.map((one) => [one.name, one.losses]))
    }
    const had = await losses()
    const id = await job.starts()
    const lost = await job.follows(id, 'it is lost', ({ losses }) => losses > 0)
    expect(lost.word).toBe('in-doubt')
    const bad = lost.cable ?? ''
    expect(bad).not.toBe('A')
    /* Another cable, at another port: the run goes on there, and where it is not seen it does not. */
    await expect(job.moves(id, 'P5')).rejects.toMatchObject({ code: 'run.not-there' })
    const tavi = await person(shop, 'Tavi')
    await tavi.call('POST', '/api/bench/cables', { cable: 'A', port: 'P5' })
    await job.hands({ kind: 'plug', serial: LOOPING, port: 'P5' })
    await job.follows(id, 'it is seen elsewhere', ({ elsewhere }) => elsewhere === 'P5')
    await job.moves(id, 'P5')
    const end = await job.ends(id)
    expect(end.port).toBe('P5')
    expect([end.word, end.losses, end.cable]).toEqual(['done', 1, 'A'])
    /* The loss stays with the cable that had it. */
    expect(await losses()).toEqual({ ...had, [bad]: (had[bad] ?? 0) + 1 })
    expect(shop.flash(LOOPING).wrong(built('alder-20-2640.1-HO').manifest)).toEqual([])
    expect(shop.flash(LOOPING).marks).toEqual(before)
    await tavi.call('POST', '/api/bench/cables', { cable: 'A', port: 'P1' })
    await job.goesTo('P5')
    expect((await job.read()).device?.outcome).toBe('normal')
  }, 120_000)
})

describe('job 14: back to the last build of the release before, its wipe agreed', () => {
  it('keeps the older loader away, erases and proves it, and holds updates back until a day', async () => {
    const customer = { device: 'Alder 4', model: 'CORV-4N', intent: 'downgrade' } as const
    const answers = { ...NOT_THERE, 'survive.photos': 'must', 'survive.settings': 'may-go' }
    const job = await Technician.readsIn(shop, { ...customer, answers }, GOES_BACK.serial, 'P1')
    /* Without the erase it would loop: where its photos must stay it is not offered. */
    const offered = async () => (await job.routes()).routes.map(({ title }) => title)
    expect(await offered()).not.toContain('19-2620.1-HO')
    await job.say({ 'survive.photos': 'may-go' })
    const back = (await job.routes()).routes.find(({ title }) => title === '19-2620.1-HO')
    const { taken } = await job.takes(back?.route ?? '')
    const kinds = taken?.shown.steps.map(({ kind }) => kind) ?? []
    expect(kinds.lastIndexOf('erase')).toBeGreaterThan(0)
    expect(kinds.lastIndexOf('erase')).toBeLessThan(kinds.indexOf('first-start'))
    const loader = taken?.shown.writes.find(({ partition }) => partition === 'loader')
    expect(loader?.write).toBe(false)
    await job.signs()
    const end = await job.ends(await job.starts())
    expect(end.word).toBe('done')
    expect(shop.flash(GOES_BACK.serial).readable).toEqual([])
    const { dues } = await job.read()
    expect(dues.asked.map(({ what }) => what)).toEqual(['updates', 'patch'])
    await job.say({ 'due.updates': dues.asked[0]?.on ?? '' })
    expect((await job.job()).dues.standing.map(({ what }) => what)).toEqual(['updates'])
  }, 120_000)

  it('is refused where a floor forbids it, and the nearest that goes is named', async () => {
    const customer = { device: 'Alder 4', model: 'CORV-4M', intent: 'downgrade' } as const
    const answers = { ...NOT_THERE, 'survive.photos': 'may-go' }
    const job = await Technician.readsIn(shop, { ...customer, answers }, TOO_HIGH, 'P5')
    const roads = await job.routes()
    expect(roads.routes.map(({ title }) => title)).not.toContain('19-2620.1-HO')
    const [left] = [...roads.left, ...roads.blocked].filter(({ title }) => title === '19-2620.1-HO')
    expect(left === undefined ? '' : JSON.stringify(left)).toContain('state.floor')
    await expect(job.takes('alder-19-2620.1-HO')).rejects.toThrow(/floor|older/)
    expect(roads.routes[0]?.title).toBe('20-2638.0-HO')
    /* It cannot go back, and why is the first word. */
    expect(roads.cannot?.title).toBe('19-2620.1-HO')
    expect(roads.cannot?.finding?.rule).toContain('state.floor')
  }, 120_000)
})

describe('job 20: a carrier’s phone made open', () => {
  it('takes the variant up in place, photos and messages kept, and the network lock is what it was', async () => {
    const customer = { device: 'Alder 5', model: 'CORV-5N', intent: 'variant-change' } as const
    const things = { ...NOT_THERE, 'survive.photos': 'must', 'survive.messages': 'must' }
    const answers = { ...things, 'want.row': 'HI/O' }
    const job = await Technician.readsIn(shop, { ...customer, answers }, SOLD_BY_S, 'P2')
    const { routes } = await job.routes()
    /* Both roads: the variant alone, in place, and its newest build whole. */
    const titles = routes.map(({ title }) => title)
    expect(titles).toEqual(expect.arrayContaining(['variant HO of 20-2634.0', '21-2641.1-HO']))
    const inPlace = routes.find(({ title }) => title.startsWith('variant HO'))
    const marks = shop.flash(SOLD_BY_S).marks
    const end = await job.does(inPlace?.route ?? '')
    expect(end.word).toBe('done')
    expect(shop.flash(SOLD_BY_S).marks).toEqual(marks)
  }, 120_000)
})

describe('job 5: all stock, its lock to be closed', () => {
  it('closes it last, after a first start that was proven, and starts once more', async () => {
    const customer = { device: 'Alder 5', model: 'CORV-5M', intent: 'relock' } as const
    const answers = { ...NOT_THERE, 'survive.photos': 'may-go', 'survive.apps': 'may-go' }
    const job = await Technician.readsIn(shop, { ...customer, answers }, STOCK_OPEN, 'P3')
    const { routes } = await job.routes()
    const closing = routes.find(
      ({ route, title }) => title === '21-2641.1-HO' && route.includes('close'),
    )
    const { taken } = await job.takes(closing?.route ?? '')
    const kinds = taken?.shown.steps.map(({ kind }) => kind) ?? []
    const lock = kinds.indexOf('lock')
    expect(kinds.indexOf('first-start')).toBeGreaterThanOrEqual(0)
    expect(kinds.indexOf('first-start')).toBeLessThan(lock)
    expect(kinds.lastIndexOf('first-start')).toBeGreaterThan(lock)
    await job.signs()
    const end = await job.ends(await job.starts())
    expect(end.word).toBe('done')
    const facts = await job.read()
    expect(facts.facts.find(({ fact }) => fact === 'bootLock')?.value).toBe('closed')
  }, 120_000)
})

describe('job 12: the maker’s diagnosis, by its permit, and stock again', () => {
  it('takes no permit of another device, goes by the one that is its own, and goes back to stock on the same slip', async () => {
    const device = deviceIdOf(SERVICED)
    const customer = { device: 'Alder 4', model: 'CORV-4M', intent: 'service' } as const
    const answers = { ...NOT_THERE, 'consent.mark': 'yes' }
    const job = await Technician.readsIn(shop, { ...customer, answers }, SERVICED, 'P4')
    const granted = { id: 'PM-2610-0413', device, scope: 'service', until: '2026-11-30' } as const
    const permit = (more: Partial<UnsignedPermit>) =>
      job.permit(permitFile({ ...granted, ...more }))
    const service = async () => {
      const { routes } = await job.routes()
      return routes.find(({ title }) => title === 'service 20-2638.9')
    }
    const why = async () =>
      (await job.why('alder-service-20-2638.9')).findings
        .filter(({ verdict }) => verdict === 'does-not-fit')
        .map(({ code }) => code)
    expect(await service()).toBeUndefined()
    expect((await job.job()).dues.asked.map(({ what }) => what)).toContain('permit')
    await permit({ device: deviceIdOf('COR4MB200731') })
    expect(await why()).toContain('fit.permit.device.other')
    /* One character read for its look-alike. */
    const misread = device.replace(/[015]/, (one) => ({ 0: 'O', 1: 'I', 5: 'S' })[one] ?? one)
    expect(misread).not.toBe(device)
    await permit({ device: misread })
    expect(await why()).toContain('fit.permit.device.alike')
    await permit({ until: '2026-10-01' })
    expect(await why()).toContain('fit.permit.day.over')
    await permit({ from: '2026-11-29' })
    expect(await why()).toContain('fit.permit.day.early')
    await permit({ packages: ['another'] })
    expect(await why()).toContain('fit.permit.packages.other')
    await permit({ scope: 'pilot' })
    expect(await why()).toContain('fit.permit.kind.other')
    /* One character changed since it was signed: what stood before stands. */
    const changed = permitFile(granted).replace('2026-11-30', '2026-12-30')
    await expect(job.permit(changed)).rejects.toThrow('No key of the trust store signed')
    expect(await why()).toContain('fit.permit.kind.other')
    /* Typed, it is a word; the file is the maker's own. */
    await job.say({ [PERMIT_TOPIC]: permitText(granted) })
    expect((await job.job()).permit).toMatchObject({ id: granted.id, signed: null })
    await permit({})
    expect((await job.job()).permit?.signed).toMatchObject({ maker: 'Corvane', key: 'corvane' })
    expect(await why()).toEqual([])
    const marks = shop.flash(SERVICED).marks
    await job.does((await service())?.route ?? '')
    expect(shop.flash(SERVICED).wrong(built('alder-service-20-2638.9').manifest)).toEqual([])
    expect(shop.flash(SERVICED).marks).toEqual(marks)
    const served = await job.read()
    const buildOf = ({ facts }: typeof served) => facts.find(({ fact }) => fact === 'build')?.value
    expect(buildOf(served)).toBe('20-2638.9-HO')
    /* A permit is good for one time. */
    expect(await why()).toContain('fit.permit.spent.spent')

    /* Stock goes back on, on the same slip: its work begins anew, what was said at the counter stands. */
    const tavi = await person(shop, 'Tavi')
    const again = linesOf({ 'again.plan': 'restore' })
    await tavi.call('POST', `/api/slips/${job.number}/lines`, again)
    const anew = await job.job()
    expect([anew.run, anew.at]).toEqual([null, 'readings'])
    await job.read()
    await job.leaves()
    await job.read(true)
    const stock = (await job.routes()).routes.find(({ title }) => title === '20-2638.0-HO')
    await job.does(stock?.route ?? '')
    const back = await job.read()
    /* Of the second piece of work nothing was said yet, and what it goes in with is what was counted last. */
    expect(back.lines.filter(({ topic }) => topic.startsWith('after.'))).toEqual([])
    expect([back.intent, back.at]).toEqual(['restore', 'first-start'])
    expect(buildOf(back)).toBe('20-2638.0-HO')
    expect(shop.flash(SERVICED).wrong(built('alder-20-2638.0-HO').manifest)).toEqual([])
    expect(shop.flash(SERVICED).marks).toEqual(marks)
  }, 120_000)
})
