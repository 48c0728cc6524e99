/**
 * What goes wrong in every job, as a matrix: a job of each family, met by each trap. At the gate nothing begins and nothing
 * is lost while it stands open; on the way its cable is out in a seeded piece, then its cell, and the computer dies, and the
 * run ends as it promised. What was tried and what came of it is printed, with the seed. Other moments are hurt in `e2e/faults`.
 */
import { copyFileSync, openSync, renameSync, rmSync, writeSync } from 'node:fs'
import { join } from 'node:path'
import type { ApiError, StandInAct, StandInDevice } from '@plain-slate/api'
import { THINGS, chances } from '@plain-slate/core'
import type { Intent } from '@plain-slate/core'
import type { DemoDevice } from '@plain-slate/demo'
import { buildPackage } from '@plain-slate/demo'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { WholeShop } from '../bench/whole-shop.ts'
import { until } from '../bench/whole-shop.ts'
import { deviceOf, draftNamed } from '../bench/world.ts'
import { openShop, person } from './shop.ts'
import { Refused, Technician } from './technician.ts'

const SEED = Number(process.env['SEED'] ?? 20261015)

type Trapped = {
  readonly name: string
  readonly device: DemoDevice
  readonly port: string
  readonly model: string
  readonly intent: Intent
  readonly answers: Readonly<Record<string, string>>
  readonly pack: string
  /** What its family calls the running system. */
  readonly system: string
}
const things = (answer: string) =>
  Object.fromEntries(
    ['photos', 'apps', 'messages', 'settings', ...THINGS].map((one) => [`survive.${one}`, answer]),
  )
const made = (from: string, serial: string, more: Partial<DemoDevice> = {}): DemoDevice => ({
  ...deviceOf(from),
  serial,
  port: null,
  ...more,
})
const JOBS: readonly Trapped[] = [
  {
    name: 'a handheld by parts, tickets kept',
    device: made('TRN449000426A6', 'TRN44900926A61', { permission: true }),
    port: 'P1',
    model: 'BRAK-H2',
    intent: 'update',
    answers: { 'survive.tickets': 'must' },
    pack: 'tarn-H2.104.r4',
    system: 'normal',
  },
  {
    name: 'a phone by two writing modes, photos kept',
    device: made('COR5MC300420', 'COR5MC300962', { permission: true }),
    port: 'P3',
    model: 'CORV-5M',
    intent: 'update',
    answers: { ...things('not-there'), 'survive.photos': 'must' },
    pack: 'alder-21-2641.1-HO',
    system: 'system',
  },
  {
    name: 'a tablet that is wiped',
    device: made('OST11A260407', 'OST11A260963'),
    port: 'P5',
    model: 'OSTR-11A',
    intent: 'leave-channel',
    answers: { ...things('not-there'), 'survive.photos': 'may-go' },
    pack: 'fen-FEN-26.21B-S',
    system: 'system',
  },
]
/** The like of the first, on the bench beside it. */
const LIKE = made('TRN449000426A6', 'TRN44900926A69', { name: 'its like' })

let shop: WholeShop
beforeAll(async () => {
  const packages = ['tarn-loader-7-r4', ...JOBS.map(({ pack }) => pack)]
  shop = await openShop(packages, [], { devices: [...JOBS.map(({ device }) => device), LIKE] })
}, 240_000)
afterAll(() => shop.close())

/** What a trap does, and how it is undone; the answer is who tries to start, where that is the trap. */
type Trap = {
  readonly name: string
  readonly refuses: RegExp
  readonly set: (job: Technician, of: Trapped) => Promise<unknown>
  readonly heal: (job: Technician, of: Trapped) => Promise<unknown>
}
const vaultFile = async (pack: string): Promise<string> => {
  const { archives } = await shop.shelf()
  const [volume] = buildPackage(draftNamed(pack)).volumes
  const { sha256 = '' } = archives.find(({ name }) => name === volume?.file) ?? {}
  return join(shop.folder, 'vault', sha256.slice(0, 2), sha256.slice(2))
}
const seenAs = (port: string, serial: string | undefined) =>
  until(`${serial ?? 'nothing'} at ${port}`, async () => {
    const { seen } = await shop.port(port)
    return seen?.serial === serial
  })

const TRAPS: readonly Trap[] = [
  {
    name: 'another device in its port',
    refuses: /seen|device/i,
    async set(job, { port, device }) {
      await job.hands({ kind: 'unplug', serial: device.serial })
      await job.hands({ kind: 'plug', serial: LIKE.serial, port })
      await seenAs(port, LIKE.serial)
    },
    async heal(job, { port, device }) {
      await job.hands({ kind: 'unplug', serial: LIKE.serial })
      await job.hands({ kind: 'plug', serial: device.serial, port })
      await seenAs(port, device.serial)
    },
  },
  {
    name: 'its cell at 3 %',
    refuses: /battery|charge/i,
    async set(job, { device: { serial }, port }) {
      await job.hands({ kind: 'charge', serial, percent: 3 })
      await until('the charge is seen', async () => (await shop.port(port)).seen?.battery === 3)
    },
    async heal(job, { device: { serial }, port }) {
      await job.hands({ kind: 'charge', serial, percent: 95 })
      await until('it is charged', async () => (await shop.port(port)).seen?.battery === 95)
    },
  },
  {
    name: 'bytes damaged on the shelf after they were proven',
    refuses: /bytes/i,
    async set(_, { pack }) {
      const path = await vaultFile(pack)
      renameSync(path, `${path}.kept`)
      copyFileSync(`${path}.kept`, path)
      writeSync(openSync(path, 'r+'), Buffer.from([0xff, 0xfe]), 0, 2, 70_000)
    },
    async heal(_, { pack }) {
      const path = await vaultFile(pack)
      rmSync(path)
      renameSync(`${path}.kept`, path)
    },
  },
  {
    name: 'its plan gone stale',
    refuses: /again|stale|changed|no longer/i,
    set: async () => (await person(shop, 'Ilse')).decides({ writes: 'all' }),
    heal: async () => (await person(shop, 'Ilse')).decides({ writes: 'least' }),
  },
  {
    name: 'a consent withdrawn',
    refuses: /slip|guarantee/i,
    set: (job) => job.say({ 'consent.no-guarantee': 'no' }),
    heal: (job) => job.say({ 'consent.no-guarantee': 'yes' }),
  },
]

const refusalOf = (job: Technician) =>
  job.starts().then(
    (id) => `began ${id}`,
    (error: unknown) => (error instanceof Refused ? error.message : String(error)),
  )

const atHand = async ({ serial }: Technician): Promise<StandInDevice | undefined> => {
  const devices = await shop.call<readonly StandInDevice[]>('GET', '/api/bench/hands')
  return devices.find((one) => one.serial === serial)
}
const isLost = (device: StandInDevice | undefined): boolean =>
  device?.port === null || device?.mode?.kind === 'off'

/** What hands do so that the device is met again: its cable in, and keys to where the run waits for it. */
async function heal(job: Technician, id: string): Promise<void> {
  const device = await atHand(job)
  const { serial, port } = job
  if (device?.port === null) await job.hands({ kind: 'plug', serial, port })
  const { waiting } = await job.run(id)
  if (device?.mode?.kind !== 'off' || !waiting?.mode) return
  /* Its page says the way: hands go it as far as hands go, and the run tells the device the rest. */
  const { legs } = await job.way(waiting.mode.id, device.mode.id)
  for (const { hands, to } of legs ?? []) {
    if (!hands) return
    await job.hands({ kind: 'keys', serial, to: to.id })
  }
}

type Loss = 'cable' | 'battery'
const ARMS: Readonly<Record<Loss, string>> = {
  cable: 'its cable out',
  battery: 'its battery out',
}
/** It is lost in the nth piece from now. */
const arm = (job: Technician, how: Loss, piece: number) =>
  job.hands({ kind: 'cut', serial: job.serial, piece, bytes: 40_960, how })

/** What comes after the transfers: it is lost as it hears the next request of a kind. */
type Phase = { readonly name: string; readonly asked: Asked }
type Asked = NonNullable<Extract<StandInAct, { kind: 'cut' }>['asked']>
const phasesOf = (system: string): readonly Phase[] => [
  { name: 'read back', asked: { verb: 'digest' } },
  { name: 'restart', asked: { verb: 'restart' } },
  { name: 'first start', asked: { verb: 'hello', mode: system } },
]
const armAt = ({ asked }: Phase, job: Technician, how: Loss) =>
  job.hands({ kind: 'cut', serial: job.serial, piece: 1, bytes: 0, how, asked })

/** Waits until it is lost, and answers in which step, and what the run says. */
async function lost(job: Technician, id: string, how: Loss): Promise<string> {
  await until(`${ARMS[how]}`, async () => isLost(await atHand(job)))
  const at = await job.follows(id, 'the run misses it', ({ word }) => !word.startsWith('hands-'))
  const step = at.steps[at.step - 1]
  return `${ARMS[how]} in step ${at.step} (${step?.kind ?? ''}): ${at.word}`
}

/** The computer of the bench dies while it is lost, is begun again, and the run is taken up. */
async function computerDies(job: Technician, id: string): Promise<string> {
  await shop.kill('agent a')
  await until('nobody drives it', async () => (await job.run(id)).ownerless)
  const { step, steps, word } = await job.run(id)
  await shop.begin('agent a')
  await until('it is taken up', async () => (await shop.takeUp(id)).state === 'running')
  return `its computer dead in step ${step} (${steps[step - 1]?.kind ?? ''}): ${word}`
}

/** To its end, with hands that help it up wherever it lies. */
async function ends(job: Technician, id: string) {
  let end = await job.run(id)
  await until('the run ends', async () => {
    await heal(job, id)
    let ticks = 0
    end = await job.follows(id, 'a look at it', () => (ticks += 1) > 1)
    return ['ended', 'stopped'].includes(end.state)
  })
  return end
}

describe.each(JOBS)('$name', (of) => {
  const { device, port, pack } = of
  let job: Technician

  it('begins nothing while a trap stands at the gate, and loses nothing', async () => {
    const customer = { device: of.model, model: of.model, intent: of.intent, answers: of.answers }
    job = await Technician.readsIn(shop, customer, device.serial, port)
    const { title } = buildPackage(draftNamed(pack)).manifest
    const road = (await job.routes()).routes.find((one) => one.title === title)
    await job.takes(road?.route ?? '')
    await job.signs()
    const before = shop.flash(device.serial)
    const told: string[] = []

    const trainee = await person(shop, 'Juno')
    const { digest = '' } = (await job.plan()).taken ?? {}
    const refused = await trainee.call<ApiError>('POST', `/api/slips/${job.number}/start`, {
      digest,
    })
    told.push(`a person without the role: ${refused.code}`)
    expect(refused.code).toBe('act.refused')
    for (const trap of TRAPS) {
      await trap.set(job, of)
      const said = await refusalOf(job)
      told.push(`${trap.name}: ${said}`)
      await trap.heal(job, of)
      expect(said, trap.name).toMatch(trap.refuses)
      expect(said, trap.name).not.toMatch(/^began/)
    }
    console.log([`seed ${SEED}, ${of.name}`, ...told].join('\n  '))
    const after = shop.flash(device.serial)
    expect(after.marks).toEqual(before.marks)
    expect((await job.job()).run).toBeNull()
  }, 120_000)

  it('loses cable, cell and computer in each phase, and ends as it promised', async () => {
    const { marks } = shop.flash(device.serial)
    const like = shop.flash(LIKE.serial).marks
    const random = chances(SEED + port.charCodeAt(1))
    const some = (most: number) => 1 + Math.floor(random() * most)
    await job.signs()
    await arm(job, 'cable', some(2))
    const id = await job.starts()
    const told = [await lost(job, id, 'cable')]
    /* By then its loader stands: a cell out in that one's only piece would kill it. */
    await arm(job, 'battery', 1 + some(3))
    await heal(job, id)
    told.push(await lost(job, id, 'battery'))
    told.push(await computerDies(job, id))
    /* Each loss is armed before the one before it is healed: no step is too quick for it. */
    for (const phase of phasesOf(of.system))
      for (const how of ['cable', 'battery'] as const) {
        await armAt(phase, job, how)
        await heal(job, id)
        told.push(`${phase.name}: ${await lost(job, id, how)}`)
        if (how === 'battery') told.push(await computerDies(job, id))
      }
    const end = await ends(job, id)
    console.log([`seed ${SEED}, ${of.name}`, ...told].join('\n  '))
    expect(end.word).toBe('done')
    expect(end.losses).toBeGreaterThan(0)
    const flash = shop.flash(device.serial)
    if (of.intent === 'leave-channel') expect(flash.readable).toEqual([])
    else expect(flash.marks).toEqual(marks)
    /* Two alike: nothing of the one beside it was touched. */
    expect(shop.flash(LIKE.serial).marks).toEqual(like)
  }, 180_000)
})
