/** More jobs of the larger phones: siblings of one name, what owners changed, a build that is not released. */
import type { DemoDevice, Line } from '@plain-slate/demo'
import { ALDER_5C, draftOf } from '@plain-slate/demo'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { WholeShop } from '../bench/whole-shop.ts'
import { built } from '../bench/whole-shop.ts'
import { deviceOf } from '../bench/world.ts'
import { everything } from './answers.ts'
import { openShop, person } from './shop.ts'
import { Technician } from './technician.ts'

const UNRELEASED = draftOf(ALDER_5C, '21-2641.1-HO', {
  id: 'alder-5N-unreleased',
  title: '21-2641.1-HO, not released',
  release: 21,
  patchDate: '2026-10-12',
  channel: 'unreleased',
  loaderVersion: 32,
  radioVersion: '21.0',
  requires: { minLoader: 31, maxLoader: 33 },
  targets: ALDER_5C.targets.filter(({ model }) => model === 'CORV-5N'),
})
const leading = deviceOf('COR5NC309414')
const STOCK: DemoDevice = {
  ...leading,
  serial: 'COR5NC309907',
  name: 'all stock',
  modified: [],
  more: {},
  port: null,
}
const SIBLING: DemoDevice = {
  ...STOCK,
  serial: 'COR5MC309907',
  fused: { ...STOCK.fused, model: 'CORV-5M' },
}
const ABROAD: DemoDevice = { ...deviceOf('COR5XE300412'), serial: 'COR5XE309907', permission: true }
/** Rescue and main are its owner's. */
const OWN_RESCUE: DemoDevice = {
  ...leading,
  serial: 'COR5NC309902',
  name: 'its rescue and its system are its owner’s',
  modified: ['rescue', 'main'],
  port: null,
}
/** As the Mainland has it; for the sibling the very build is for the Isles. */
const MAINLAND: Line = {
  ...ALDER_5C,
  key: 'alder 5 C of ML',
  builds: ['20-2634.0-MO'],
  targets: ALDER_5C.targets.map((one) =>
    one.model === 'CORV-5M' ? { ...one, region: 'ML' } : one,
  ),
  rowOf: ALDER_5C,
}
const OF_ML = draftOf(MAINLAND, '20-2634.0-MO', {
  id: 'alder-20-2634.0-MO',
  title: '20-2634.0-MO',
  release: 20,
  patchDate: '2026-08-01',
  loaderVersion: 31,
  radioVersion: '20.1',
  requires: { minLoader: 30, maxLoader: 33 },
})
/** Its main is its owner's, and its owner moves to the isles. */
const MOVES: DemoDevice = {
  ...deviceOf('COR5MC300420'),
  serial: 'COR5MC300909',
  name: 'of the Mainland, its owner moves',
  line: MAINLAND,
  build: '20-2634.0-MO',
  fused: { ...deviceOf('COR5MC300420').fused, region: 'ML' },
  modified: ['main'],
  port: null,
  more: { lock: 'open', lockSwitch: true, marks: ['custom'] },
}
const OWN_EVERYWHERE: DemoDevice = {
  ...deviceOf('COR5MC300420'),
  serial: 'COR5MC300917',
  name: 'changed everywhere, to be sold',
  modified: ['kernel', 'rescue', 'main'],
  port: null,
  more: { lock: 'open', lockSwitch: true, marks: ['custom'] },
}

let shop: WholeShop
beforeAll(async () => {
  const packages = [
    'alder-20-2634.0-HO',
    'alder-21-2641.1-HO',
    'alder-5N-unreleased',
    'alder-20-2634.0-MO',
  ]
  const devices = [STOCK, SIBLING, ABROAD, OWN_RESCUE, OWN_EVERYWHERE, MOVES]
  shop = await openShop(packages, [], { drafts: [UNRELEASED, OF_ML], devices })
}, 240_000)
afterAll(() => shop.close())

const taken = (
  { serial, fused: { model } }: DemoDevice,
  port: string,
  intent: 'preview' | 'restore' | 'relock' | 'variant-change',
  answers: Readonly<Record<string, string>>,
) => {
  const customer = { device: 'Alder 5', model, intent, answers }
  return Technician.readsIn(shop, customer, serial, port)
}

describe('job 7: a build that is not released, beside siblings of one name', () => {
  const answers = everything('may-go')
  const { id: early = '', title } = UNRELEASED.more
  const against = async (job: Technician) =>
    (await job.why(early)).findings.filter(({ verdict }) => verdict !== 'fits')

  it('goes on the one model it is for, by its maker’s signature, the owner’s word and a lead’s', async () => {
    const job = await taken(STOCK, 'P1', 'preview', answers)
    const found = (await job.why(early)).findings
    const of = (rule: string) => found.find((one) => one.rule === rule)
    /* Signed and not released are two findings. */
    expect(of('package.published')?.verdict).toBe('fits')
    expect(of('package.unreleased')).toMatchObject({ verdict: 'does-not-fit' })
    const there = async () => (await job.routes()).routes.find((one) => one.title === title)
    expect(await there()).toBeUndefined()
    const key = (await job.routes()).blocked.find((one) => one.title === title)?.package ?? ''
    const lead = await person(shop, 'Ilse')
    await lead.overrules(job.number, 'package.unreleased', key, 'its maker asked for it')
    await job.say({ 'consent.preview': 'no' })
    expect(await there()).toBeUndefined()
    await job.say({ 'consent.preview': 'yes' })
    const road = await there()
    expect(road?.route).toMatch(/by images$/)
    const end = await job.does(road?.route ?? '')
    expect(end.word).toBe('done')
    /* Its loader starts this build as it is, and is not risked. */
    expect(shop.flash(STOCK.serial).wrong(built('alder-21-2641.1-HO').manifest)).toEqual(['loader'])
    expect((await job.read()).worse).toEqual([])
  }, 120_000)

  it('is never for another chipset of the same name, whoever says so, and for a sibling only by two people', async () => {
    const lead = await person(shop, 'Ilse')
    const abroad = await taken(ABROAD, 'P2', 'preview', answers)
    const never = await against(abroad)
    expect(never[0]?.code).toBe('fit.identity.model.stranger')
    expect(never.map(({ rule }) => rule)).toContain('identity.chipset')
    const key = (await (await taken(SIBLING, 'P3', 'preview', answers)).routes()).left.find(
      (one) => one.title === title,
    )
    expect(key?.reason?.code).toBe('fit.identity.model.sibling')
    const no = await lead.overrules(
      abroad.number,
      'identity.chipset',
      early,
      'the name is the same',
    )
    expect(no).toMatchObject({ code: 'rule.final' })
    expect((await abroad.routes()).routes).toEqual([])
  }, 120_000)
})

describe('job 2: a rescue and a system of its owner’s own, everything may go', () => {
  it('has the maker’s rescue written first, the package copied and proven, its reset after what it installs', async () => {
    const { serial } = OWN_RESCUE
    const job = await taken(OWN_RESCUE, 'P4', 'restore', everything('may-go'))
    const lead = await person(shop, 'Ilse')
    await lead.decides({ data: 'new' })
    const { routes } = await job.routes()
    const road = routes.find(
      ({ title, route }) => title === '20-2634.0-HO' && route.includes('by storage'),
    )
    const { taken: plan } = await job.takes(road?.route ?? '')
    const steps = plan?.shown.steps ?? []
    const kinds = steps.map(({ kind, facts }) =>
      kind === 'by-hand' && 'what' in facts ? facts.what : kind,
    )
    const order = ['copy', 'prove-copy', 'write', 'install', 'reset', 'first-start'] as const
    const places = order.map((kind) => kinds.indexOf(kind))
    expect(places.every((at) => at >= 0)).toBe(true)
    expect(places).toEqual([...places].sort((a, b) => a - b))
    /* The copy lies where the wipe goes: it is wiped after it was installed, and that is said. */
    const said = plan?.shown.order.map(({ code }) => code)
    expect(said).toEqual(expect.arrayContaining(['rescue-first', 'wiped-start']))
    await job.signs()
    const end = await job.ends(await job.starts())
    expect(end.word).toBe('done')
    expect(shop.flash(serial).wrong(built('alder-20-2634.0-HO').manifest)).toEqual([])
    expect(shop.flash(serial).readable).toEqual([])
    expect((await job.read()).worse).toEqual([])
    await lead.decides({ data: 'keep' })
  }, 120_000)
})

describe('job 17: changed everywhere, to be sold', () => {
  it('is written part by part, proven, closed last, reset, and nothing of it can be counted', async () => {
    const { serial } = OWN_EVERYWHERE
    const job = await taken(OWN_EVERYWHERE, 'P5', 'relock', everything('may-go'))
    const { routes } = await job.routes()
    const road = routes.find(
      ({ title, route }) => title === '20-2634.0-HO' && route.includes('by images'),
    )
    const { taken: plan } = await job.takes(road?.route ?? '')
    const steps = plan?.shown.steps ?? []
    const kinds = steps.map(({ kind }) => kind)
    /* Every part that is its owner's is written; nothing else touches a partition that nobody may. */
    const written = new Set(
      steps.flatMap(({ kind, facts }) =>
        kind === 'write' && 'partition' in facts ? [facts.partition] : [],
      ),
    )
    for (const role of ['kernel', 'rescue', 'main']) expect(written).toContain(role)
    for (const never of ['calib', 'customer']) expect(written).not.toContain(never)
    expect(kinds.indexOf('prove')).toBeLessThan(kinds.indexOf('lock'))
    await job.signs()
    const end = await job.ends(await job.starts())
    expect(end.word).toBe('done')
    expect(shop.flash(serial).readable).toEqual([])
    expect(shop.flash(serial).wrong(built('alder-20-2634.0-HO').manifest)).toEqual([])
    const after = await job.read()
    expect(after.facts.find(({ fact }) => fact === 'bootLock')?.value).toBe('closed')
    expect(after.tally.after?.items).toBe(0)
    expect(after.worse).toEqual([])
  }, 120_000)
})

describe('job 9: of another region, its main changed, its owner moves', () => {
  it('takes up the region’s variant in place by a lead’s word, is judged by where it is used, and stays open', async () => {
    const { serial } = MOVES
    const said = { 'survive.photos': 'must', 'use.region': 'HI', 'want.row': 'HI/O' }
    const answers = { ...everything('not-there'), ...said }
    const job = await taken(MOVES, 'P3', 'variant-change', answers)
    const facts = (await job.job()).facts
    expect(facts.find(({ fact }) => fact === 'region')?.value).toBe('ML')
    expect(facts.find(({ fact }) => fact === 'batteryPercent')?.value).toBeTypeOf('number')
    const findings = async (key: string) => (await job.why(key)).findings
    const of = async (key: string, rule: string) =>
      (await findings(key)).find((one) => one.rule === rule)
    /* What it runs is of a radio that may not be operated where it goes, whatever the package names for a sibling. */
    const here = OF_ML.more.id ?? ''
    expect(await of(here, 'promise.radio-law')).toMatchObject({
      code: 'fit.promise.radio-law.unlawful',
    })
    const title = '20-2634.0-HO'
    const roads = await job.routes()
    expect(roads.routes.map((one) => one.title)).not.toContain(title)
    const key = roads.blocked.find((one) => one.title === title)?.package ?? ''
    expect(await of(key, 'identity.region')).toMatchObject({ code: 'fit.identity.region.moves' })
    expect(await of(key, 'promise.radio-law')).toMatchObject({ verdict: 'fits' })
    expect(await of(key, 'promise.data')).toMatchObject({ code: 'fit.promise.data.same' })
    const lead = await person(shop, 'Ilse')
    await lead.overrules(job.number, 'identity.region', key, 'its owner lives there from now on')
    const road = (await job.routes()).routes.find((one) => one.title === title)
    const { taken: plan } = await job.takes(road?.route ?? '')
    const written = plan?.shown.writes.flatMap(({ partition, write }) => (write ? [partition] : []))
    expect(written).toEqual(expect.arrayContaining(['variant', 'main']))
    const kinds = plan?.shown.steps.map(({ kind }) => kind)
    expect(kinds).not.toContain('erase')
    expect(kinds).not.toContain('lock')
    await job.signs()
    expect((await job.ends(await job.starts())).word).toBe('done')
    const flash = shop.flash(serial)
    expect(flash.wrong(built('alder-20-2634.0-HO').manifest)).toEqual([])
    expect(flash.readable.length).toBeGreaterThan(0)
    const after = await job.read()
    expect(after.facts.find(({ fact }) => fact === 'build')?.value).toBe(title)
    expect(after.facts.find(({ fact }) => fact === 'bootLock')?.value).toBe('open')
    expect(after.worse).toEqual([])
    /* Its fuses expect the other row: its lock is not closed over this one. */
    await lead.call('POST', `/api/slips/${job.number}/lines`, {
      lines: [{ topic: 'again.plan', answer: 'relock', note: '' }],
    })
    await job.read()
    await job.leaves()
    await job.read(true)
    expect((await job.routes()).routes.filter((one) => one.title === title)).toEqual([])
  }, 120_000)
})
