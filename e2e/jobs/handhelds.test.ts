/** The jobs of the handhelds, each from the counter to its proof on real bytes, with what goes wrong on the way. */
import type { DemoDevice } from '@plain-slate/demo'
import { DEMO_DEVICES, TARN_R4 } from '@plain-slate/demo'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { WholeShop } from '../bench/whole-shop.ts'
import { LEAD, newestPackage } from '../bench/whole-shop.ts'
import { openShop, person } from './shop.ts'
import { Technician } from './technician.ts'

const gate = DEMO_DEVICES.find(({ serial }) => serial === 'TRN449000426A6')
if (gate === undefined) throw new Error('no handheld of the gate')
/** Somebody's update of it stopped before its main part; what was written is of the newest build. */
const STOPPED: DemoDevice = {
  ...gate,
  serial: 'TRN4490019J19',
  name: 'most of the newest build is on it',
  line: TARN_R4,
  strange: Object.fromEntries(
    ['modem', 'kernel', 'support', 'variant'].map((role) => [role, 'H2.104.r4']),
  ),
  mode: 'off',
  permission: false,
}

let shop: WholeShop
beforeAll(async () => {
  const packages = ['tarn-H2.0ZC.r4', 'tarn-H2.0ZP.r4', 'tarn-loader-7-r4', 'tarn-H2.104.r4']
  shop = await openShop(packages, [LEAD], { devices: [STOPPED] })
}, 180_000)
afterAll(() => shop.close())

describe('job 4: the lead handheld to the newest, its tickets kept', () => {
  it('writes the loader first, waits for a key at the end, and is as promised', async () => {
    const customer = { device: 'Brakken H2K', model: 'BRAK-H2K', intent: 'update' } as const
    const answers = { 'survive.tickets': 'must' }
    const job = await Technician.takesIn(shop, { ...customer, answers }, LEAD, 'P2')
    await job.read()
    await job.leaves()
    await job.read(true)
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
