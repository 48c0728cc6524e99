/** The jobs of the handhelds, each from the counter to its proof on real bytes, with what goes wrong on the way. */
import type { DemoDevice, Line } from '@plain-slate/demo'
import { TARN_R4, draftOf } from '@plain-slate/demo'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { WholeShop } from '../bench/whole-shop.ts'
import { LEAD, newestPackage } from '../bench/whole-shop.ts'
import { deviceOf } from '../bench/world.ts'
import { STOPPED } from './devices.ts'
import { openShop, person } from './shop.ts'
import { Technician } from './technician.ts'

const gate = deviceOf('TRN449000426A6')
const [NEWEST, EARLY] = ['H2.104.r4', 'H2.106.r4'] as const
const WITH_EARLY: Line = { ...TARN_R4, builds: [...TARN_R4.builds, EARLY] }
/** An early build, from the newest alone, by a card. */
const BY_CARD = draftOf(
  WITH_EARLY,
  EARLY,
  {
    id: 'tarn-to-early',
    title: `${NEWEST} to ${EARLY}`,
    kind: 'incremental',
    channel: 'pilot',
    release: 5,
    patchDate: '2026-10-14',
    radioVersion: '4.1',
    requires: { exactBuild: NEWEST, minLoader: 7 },
  },
  { roles: ['modem', 'kernel', 'support', 'main'] },
)
const ON_NEWEST: DemoDevice = {
  ...gate,
  serial: 'TRN4490019J13',
  name: 'on the newest, a card in it',
  line: WITH_EARLY,
  build: NEWEST,
}
const CHANGED: DemoDevice = {
  ...ON_NEWEST,
  serial: 'TRN4490029J13',
  name: 'its kernel is of nobody',
  modified: ['kernel'],
}
const ON_ANOTHER: DemoDevice = {
  ...ON_NEWEST,
  serial: 'TRN4490039J13',
  name: 'on an older build',
  build: 'H2.0ZP.r4',
}

let shop: WholeShop
beforeAll(async () => {
  const packages = ['tarn-H2.0ZC.r4', 'tarn-H2.0ZP.r4', 'tarn-loader-7-r4', 'tarn-H2.104.r4']
  shop = await openShop([...packages, 'tarn-to-early'], [LEAD], {
    drafts: [BY_CARD],
    devices: [STOPPED, ON_NEWEST, CHANGED, ON_ANOTHER],
  })
}, 180_000)
afterAll(() => shop.close())

describe('job 4: the lead handheld to the newest, its tickets kept', () => {
  it('writes the loader first, waits for a key at the end, and is as promised', async () => {
    const customer = { device: 'Brakken H2K', model: 'BRAK-H2K', intent: 'update' } as const
    const answers = { 'survive.tickets': 'must' }
    const job = await Technician.readsIn(shop, { ...customer, answers }, LEAD, 'P2')
    const [best] = (await job.routes()).routes
    expect([best?.title, best?.first.map(({ title }) => title)]).toEqual([
      'H2.104.r4',
      ['loader 7'],
    ])
    const before = shop.flash(LEAD).marks
    const { taken } = await job.takes(best?.route ?? '')
    expect(taken?.shown.reaches).toBe(true)

    /* The charge that the plan needs, and the floor of a house that has one: both are told. */
    const lead = await person(shop, 'Ilse')
    await lead.decides({ batteryFloor: 90 })
    const charge = async () => (await job.ready()).checks.find(({ check }) => check === 'battery')
    expect(await charge()).toMatchObject({ holds: false, facts: { floor: 90, needed: 90 } })
    await lead.decides({ batteryFloor: 40 })
    expect(await charge()).toMatchObject({
      holds: true,
      facts: { floor: 40, needed: 40, alone: 30 },
    })

    await job.takes(best?.route ?? '')
    await job.signs()
    const id = await job.starts()
    const waits = await job.follows(
      id,
      'it asks for its key',
      ({ asked }) => asked?.ask === 'go-on',
    )
    expect([waits.word, waits.asked?.text]).toEqual(['hands-now', expect.stringContaining('scan')])
    const end = await job.ends(id)
    expect([end.word, end.losses]).toEqual(['done', 0])
    expect(shop.flash(LEAD).wrong(newestPackage())).toEqual([])
    expect(shop.flash(LEAD).marks).toEqual(before)
    const after = await job.read()
    const counted = (one: typeof after.tally.after) => [one?.items, one?.bytes, one?.opens]
    expect(counted(after.tally.after)).toEqual(counted(after.tally.before))
    expect(after.tally.after?.items).toBe(214)
    expect(after.worse).toEqual([])
  }, 120_000)
})

describe('job 19: two builds side by side, most of the newest on it already', () => {
  it('leaves alone what the device’s own digests show, and only that', async () => {
    const { serial } = STOPPED
    const customer = { device: 'Brakken H2', model: 'BRAK-H2', intent: 'restore' } as const
    const answers = { 'survive.tickets': 'must', 'history.starts': 'stops' }
    const job = await Technician.takesIn(shop, { ...customer, answers }, serial, 'P3')
    await job.hands({ kind: 'keys', serial, to: 'loader' })
    const read = await job.read()
    expect(read.stands?.set).toBeNull()
    const { routes } = await job.routes()
    const newest = routes.find(({ title }) => title === 'H2.104.r4')
    await job.takes(newest?.route ?? '')
    const { now } = await job.plan()
    const alone = now?.writes.filter(({ write }) => !write).map(({ partition }) => partition)
    /* Its rescue is the same in both builds; kernel and support are signed together with what is old. */
    expect(alone).toEqual(['modem', 'rescue', 'variant'])
    const reasons = now?.writes.map(({ partition, reason }) => `${partition} ${reason}`)
    expect(reasons).toEqual(
      expect.arrayContaining([
        'modem same-digest',
        'kernel together-with',
        'support together-with',
      ]),
    )
    const marks = shop.flash(serial).marks
    await job.signs()
    await job.ends(await job.starts())
    expect(shop.flash(serial).wrong(newestPackage())).toEqual([])
    expect(shop.flash(serial).marks).toEqual(marks)

    /* What was read before a write is evidence of nothing after it. */
    const again = await Technician.takesIn(shop, { ...customer, answers }, serial, 'P3')
    await again.say({ 'route.package': newest?.route ?? '' })
    expect((await again.plan()).compared.every(({ write }) => write)).toBe(true)
  }, 120_000)
})

describe('job 13: an early build, from a card, on exactly one stock build', () => {
  const customer = { device: 'Brakken H2', model: 'BRAK-H2', intent: 'preview' } as const
  const answers = { 'survive.tickets': 'must', 'accessory.card': 'none' }
  const begun = (serial: string, port: string) =>
    Technician.readsIn(shop, { ...customer, answers }, serial, port)
  const found = async (job: Technician) =>
    (await job.why('tarn-to-early')).findings
      .filter(({ verdict }) => verdict !== 'fits')
      .map(({ code }) => code)

  it('has the card prepared and proven, its rescue’s menu counted, its tickets kept', async () => {
    const { serial } = ON_NEWEST
    const job = await begun(serial, 'P4')
    const lead = await person(shop, 'Ilse')
    const roads = await job.routes()
    const key = roads.blocked.find(({ title }) => title.endsWith(EARLY))?.package ?? ''
    await lead.overrules(job.number, 'package.unreleased', key, 'the ferry line tries it')
    await job.say({ 'consent.preview': 'yes' })
    /* A card is asked for before anything is prepared. */
    expect(await found(job)).toContain('fit.state.card.none')
    await job.say({ 'accessory.card': 'here' })
    expect(await found(job)).not.toContain('fit.state.card.none')
    const road = (await job.routes()).routes.find(({ title }) => title.endsWith(EARLY))
    const { taken } = await job.takes(road?.route ?? '')
    const kinds = taken?.shown.steps.map(({ kind }) => kind).filter((kind) => kind !== 'ready')
    expect(kinds).toEqual([
      'meet',
      'copy',
      'prove-copy',
      'enter',
      'enter',
      'install',
      'first-start',
      'prove',
      'drop',
    ])
    const install = taken?.shown.steps.find(({ kind }) => kind === 'install')
    /* By the loader that is on it "install" stands second. */
    expect(install?.facts).toMatchObject({ say: expect.stringContaining('One press') as unknown })
    const before = shop.flash(serial).marks
    await job.signs()
    const end = await job.ends(await job.starts())
    expect(end.word).toBe('done')
    expect(shop.flash(serial).marks).toEqual(before)
    const after = await job.read()
    expect(after.facts.find(({ fact }) => fact === 'build')?.value).toBe(EARLY)
    expect(after.worse).toEqual([])
  }, 120_000)

  it('is refused a changed kernel and another base before anything is copied', async () => {
    const changed = await begun(CHANGED.serial, 'P5')
    expect(await found(changed)).toContain('fit.state.untouched.changed')
    const other = await begun(ON_ANOTHER.serial, 'P1')
    expect(await found(other)).toContain('fit.state.base.other')
    for (const one of [changed, other])
      expect((await one.routes()).routes.map(({ title }) => title)).not.toContain(
        BY_CARD.more.title,
      )
  }, 120_000)
})
