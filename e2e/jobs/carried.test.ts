/** Jobs of phones that keep an image of their owner's own, carried over into what goes on. */
import { tarOf } from '@plain-slate/archives'
import type { PartRole } from '@plain-slate/core'
import type { DemoDevice, Line, OwnImage } from '@plain-slate/demo'
import { ALDER_4, ALDER_5C, bytesOfOwn, draftOf } from '@plain-slate/demo'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { WholeShop } from '../bench/whole-shop.ts'
import { built } from '../bench/whole-shop.ts'
import { deviceOf } from '../bench/world.ts'
import { everything } from './answers.ts'
import { openShop, person } from './shop.ts'
import { Refused, Technician } from './technician.ts'

const KEEPS_ITS_OWN = 'COR5NC309414'
const early = deviceOf('COR4NB100411')
/** An early board: its sensors fail under new kernels; its rescue is its owner's. */
const EARLY_BOARD: DemoDevice = {
  ...early,
  serial: 'COR4NB100911',
  name: 'an early board',
  modified: ['rescue'],
  permission: true,
  more: { lock: 'open', marks: ['custom'] },
}
/** It loops, kernel and rescue are its owner's, and that rescue opens no storage that is locked. */
const OPENS_NOTHING: DemoDevice = {
  ...deviceOf(KEEPS_ITS_OWN),
  serial: 'COR5NC309918',
  name: 'its rescue opens no storage',
  modified: ['kernel', 'rescue'],
  strange: { support: '21-2641.1-HO' },
  mode: 'off',
  port: null,
}
/** The newest of it in one archive, as its rescue takes it over the cable. */
const IN_ONE = draftOf(ALDER_5C, '21-2641.1-HO', {
  id: 'alder-5N-in-one',
  title: '21-2641.1-HO in one',
  release: 21,
  patchDate: '2026-10-01',
  loaderVersion: 32,
  radioVersion: '21.0',
  requires: { minLoader: 31, maxLoader: 33 },
})
const own = (line: Line, build: string, role: PartRole = 'kernel'): OwnImage => ({
  line,
  role,
  build,
})
const NEW_5 = own(ALDER_5C, '21-2641.1-HO')
const OWN_RESCUE = own(ALDER_5C, '21-2641.1-HO', 'rescue')
const OLD_5 = own(ALDER_5C, '20-2634.0-HO')
const NEW_4 = own(ALDER_4, '20-2640.1-HO')

let shop: WholeShop
beforeAll(async () => {
  const packages = [
    'alder-20-2634.0-HO',
    'alder-21-2641.1-HO',
    'alder-20-2638.0-HO',
    'alder-20-2640.1-HO',
    'alder-5N-in-one',
  ]
  const added = {
    devices: [EARLY_BOARD, OPENS_NOTHING],
    carried: [NEW_5, OWN_RESCUE, OLD_5, NEW_4],
    drafts: [IN_ONE],
  }
  shop = await openShop(packages, [KEEPS_ITS_OWN], added)
}, 240_000)
afterAll(() => shop.close())

const fileOf = (image: OwnImage) => ({ name: `${image.role}.img`, bytes: bytesOfOwn(image) })
const keyOf = async (job: Technician, title: string) => {
  const { routes } = await job.routes()
  return routes.find((one) => one.title === title)?.package ?? ''
}
const begun = (
  serial: string,
  port: string,
  model: string,
  device: string,
): Promise<Technician> => {
  const customer = { device, model, intent: 'update' } as const
  const answers = { ...everything('not-there'), 'survive.photos': 'must' }
  return Technician.readsIn(shop, { ...customer, answers }, serial, port)
}

describe('job 15: the newest, with its owner’s own kernel and rescue', () => {
  it('takes a kernel that was made from this very package, and refuses last month’s and odd companions', async () => {
    const job = await begun(KEEPS_ITS_OWN, 'P4', 'CORV-5N', 'Alder 5')
    const lead = await person(shop, 'Ilse')
    await lead.decides({ rescue: 'kept' })
    const newest = '21-2641.1-HO'
    const key = await keyOf(job, newest)
    const last = await shop.sends('last-month.tar', tarOf([fileOf(OLD_5)]))
    const refused = await job.carries(last, key).catch((error: unknown) => error)
    expect(refused).toBeInstanceOf(Refused)
    expect((refused as Refused).code).toBe('carry.other')
    expect((refused as Refused).message).toContain('20-2634.0-HO')
    /* What goes with it must be this package's as well: here its support is of the build before. */
    const support = { ...OLD_5, role: 'support' } as const
    const odd = await shop.sends('odd.tar', tarOf([fileOf(NEW_5), fileOf(support)]))
    await expect(job.carries(odd, key)).rejects.toMatchObject({ code: 'carry.other' })
    const nothing = await shop.sends(
      'nothing.tar',
      tarOf([{ name: 'readme', bytes: Buffer.from('x') }]),
    )
    await expect(job.carries(nothing, key)).rejects.toMatchObject({ code: 'carry.none' })

    const mine = await shop.sends('mine.tar', tarOf([fileOf(NEW_5)]))
    await job.carries(mine, key)
    const routes = async () => (await job.routes()).routes
    const [best] = await routes()
    expect(best?.title).toBe(`${newest} with its owner’s kernel`)
    expect(best?.findings.map(({ code }) => code)).toContain('fit.package.carried.ask')
    const carried = best?.route ?? ''
    await job.say({ 'consent.carried': 'no' })
    expect((await routes()).map(({ title }) => title)).not.toContain(best?.title)
    await job.say({ 'consent.carried': 'yes' })
    const { taken } = await job.takes(carried)
    const told = taken?.shown.writes.map(({ partition, reason }) => `${partition} ${reason}`)
    expect(told).toContain('rescue own')
    await lead.call('POST', `/api/slips/${job.number}/lines`, {
      lines: [
        { topic: 'overrule.unpublished', answer: best?.package ?? '', note: 'made by its owner' },
      ],
    })
    await job.signs()
    const end = await job.ends(await job.starts())
    expect(end.word).toBe('done')
    const after = await job.read(true)
    expect(after.facts.find(({ fact }) => fact === 'build')?.value).toBe(newest)
    expect(after.facts.find(({ fact }) => fact === 'bootLock')?.value).toBe('open')
    expect(shop.flash(KEEPS_ITS_OWN).readable.length).toBeGreaterThan(0)
    const wrong = shop.flash(KEEPS_ITS_OWN).wrong(built('alder-21-2641.1-HO').manifest)
    expect([...wrong].sort()).toEqual(['kernel', 'loader', 'rescue'])
    /* Add-ons that break an update off were put off before, and are put on again. */
    expect(after.handBack).toContain('back.addons')
    expect(after.worse).toEqual([])
  }, 180_000)
})

describe('job 11: an early board whose sensors fail under new kernels', () => {
  it('has the fault choose its owner’s kernel, with who saw it, and keeps the lock open', async () => {
    const { serial } = EARLY_BOARD
    const job = await begun(serial, 'P2', 'CORV-4N', 'Alder 4')
    const newest = '20-2640.1-HO'
    const found = async (key: string, code: string) =>
      (await job.why(key)).findings.find((one) => one.code.startsWith(code))?.code
    const key = await keyOf(job, newest)
    expect(await found(key, 'fit.state.known-fault')).toBe('fit.state.known-fault.shows')
    /* An image by itself is put into an archive as it is shelved. */
    await job.carries(await shop.sends('kernel.img', bytesOfOwn(NEW_4)), key)
    await job.say({ 'consent.carried': 'yes' })
    const road = (await job.routes()).routes.find(({ title }) => title.startsWith(`${newest} with`))
    expect(await found(road?.package ?? '', 'fit.state.known-fault')).toBe(
      'fit.state.known-fault.replaced',
    )
    const lead = await person(shop, 'Ilse')
    await lead.call('POST', `/api/slips/${job.number}/lines`, {
      lines: [
        { topic: 'overrule.unpublished', answer: road?.package ?? '', note: 'made by its owner' },
      ],
    })
    const end = await job.does(road?.route ?? '')
    expect(end.word).toBe('done')
    const after = await job.read(true)
    expect(after.facts.find(({ fact }) => fact === 'build')?.value).toBe(newest)
    expect(after.facts.find(({ fact }) => fact === 'bootLock')?.value).toBe('open')
    expect(after.worse).toEqual([])
  }, 180_000)
})

describe('job 18: a rescue of its owner’s own that opens no locked storage', () => {
  it('has the package pushed into the maker’s rescue, and its owner’s kernel and rescue put back', async () => {
    const { serial } = OPENS_NOTHING
    const newest = '21-2641.1-HO'
    const customer = { device: 'Alder 5', model: 'CORV-5N', intent: 'update' } as const
    const photos = { ...everything('not-there'), 'survive.photos': 'must' }
    const answers = { ...photos, 'history.starts': 'stops' }
    const job = await Technician.takesIn(shop, { ...customer, answers }, serial, 'P3')
    await job.hands({ kind: 'keys', serial, to: 'loader' })
    await job.read()
    await job.read(true)
    const lead = await person(shop, 'Ilse')
    await lead.decides({ way: 'install' })
    const { routes } = await job.routes()
    /* It does not start: nothing can be copied to it; and nothing that wipes it is a road while its photos must stay. */
    expect(routes.filter(({ route }) => route.includes('by storage'))).toEqual([])
    const data = routes.flatMap(({ findings }) =>
      findings.filter(({ rule }) => rule === 'promise.data').map(({ code }) => code),
    )
    expect(data.filter((code) => code.includes('wiped'))).toEqual([])
    const pushed = routes.find(
      ({ title, route }) => title === IN_ONE.more.title && route.includes('by push'),
    )
    const { taken } = await job.takes(pushed?.route ?? '')
    const steps = taken?.shown.steps.map(({ kind }) => kind) ?? []
    expect(steps.indexOf('write')).toBeLessThan(steps.indexOf('push'))
    expect(steps).not.toContain('copy')
    await job.signs()
    expect((await job.ends(await job.starts())).word).toBe('done')
    const between = await job.read(true)
    expect(between.worse).toEqual([])
    expect(shop.flash(serial).wrong(built('alder-21-2641.1-HO').manifest)).toEqual([])

    await lead.call('POST', `/api/slips/${job.number}/lines`, {
      lines: [{ topic: 'again.plan', answer: 'restore', note: '' }],
    })
    await lead.decides({ rescue: 'kept', way: 'parts' })
    const mine = await shop.sends('both.tar', tarOf([fileOf(NEW_5), fileOf(OWN_RESCUE)]))
    await job.carries(mine, pushed?.package ?? '')
    await job.say({ 'consent.carried': 'yes' })
    const back = (await job.routes()).routes.find(({ title }) => title.includes('its owner’s'))
    await lead.call('POST', `/api/slips/${job.number}/lines`, {
      lines: [
        { topic: 'overrule.unpublished', answer: back?.package ?? '', note: 'made by its owner' },
      ],
    })
    const { taken: again } = await job.takes(back?.route ?? '')
    const written = again?.shown.steps.flatMap(({ kind, facts }) =>
      kind === 'write' && 'partition' in facts ? [facts.partition] : [],
    )
    expect(written).toEqual(['kernel', 'rescue'])
    await job.signs()
    expect((await job.ends(await job.starts())).word).toBe('done')
    const after = await job.read(true)
    expect(after.facts.find(({ fact }) => fact === 'build')?.value).toBe(newest)
    expect(shop.flash(serial).readable.length).toBeGreaterThan(0)
    const wrong = shop.flash(serial).wrong(built('alder-21-2641.1-HO').manifest)
    expect([...wrong].sort()).toEqual(['kernel', 'rescue'])
    expect(after.worse).toEqual([])
  }, 180_000)
})
