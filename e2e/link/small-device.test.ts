/** The same plans on a device that shares no code with the twin: conformance, and agreement with somebody else. */
import { readFileSync } from 'node:fs'
import type { JournalEntry, Manifest, Plan } from '@plain-slate/core'
import { BLOCK_BYTES, begin, flatten, leadsOf, modeOfKind, rehearse } from '@plain-slate/core'
import { DEMO_DEVICES } from '@plain-slate/demo'
import { conform, driveRun } from '@plain-slate/link'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { Scene } from '../agrees/scene.ts'
import { SECRET, planFor, sceneOf } from '../agrees/scene.ts'
import { shelfAt } from '../agrees/shelf.ts'
import { SmallDevice } from './small-device.ts'

const SHELF = shelfAt(4096)
const lead = DEMO_DEVICES.find(({ line }) => line.family === 'tarn')
if (lead === undefined) throw new Error('no handheld')
const packageOf = (build: string): Manifest => {
  const found = SHELF.shelf.find(
    ({ manifest }) => manifest.build === build && manifest.kind === 'full',
  )
  if (found === undefined) throw new Error(`no ${build}`)
  return found.manifest
}

let scene: Scene
let small: SmallDevice
let port = 0
beforeEach(async () => {
  const mode = modeOfKind(SHELF.family, 'system')
  scene = await sceneOf(SHELF, { ...lead, mode, permission: true, battery: 95 })
  const { before, device } = scene
  small = new SmallDevice({
    secret: SECRET,
    serial: before.serial,
    fused: before.fused,
    flash: Buffer.from(readFileSync(scene.flashPath)),
    parts: Object.fromEntries(
      Object.entries(before.parts).map(([name, { blocks }]) => [
        name,
        { at: device.file.starts[name] ?? 0, bytes: blocks * BLOCK_BYTES },
      ]),
    ),
    signed: new Map(
      [...SHELF.catalogue.values()]
        .filter(({ modified }) => !modified)
        .map(({ image, role, blocks, builds, loaderVersion }) => [
          image,
          {
            role,
            size: blocks * BLOCK_BYTES,
            builds,
            ...(loaderVersion === null ? {} : { version: loaderVersion }),
          },
        ]),
    ),
    loader: before.loaderVersion,
    floor: before.floors.all ?? 0,
    battery: before.battery,
    scale: SHELF.scale,
  })
  port = await small.open()
})
afterEach(async () => {
  await small.close()
  await scene.end()
})

const planned = (build: string, keepData = true): Plan => {
  const intent = keepData ? 'update' : 'downgrade'
  const wish = {
    aim: packageOf(build),
    evidence: new Map(),
    intent,
    keepData,
    way: undefined,
  } as const
  const plan = planFor(scene, wish)
  if (plan === undefined) throw new Error(`no plan to ${build}`)
  return plan
}

/** The plan over the link; hands press keys, and go through a set-up that this one does not have. */
async function run(plan: Plan) {
  const journal: JournalEntry[] = []
  const { commands } = flatten(plan)
  const state = await driveRun(begin(plan.serial, 1, commands), {
    address: { kind: 'tcp', host: '127.0.0.1', port },
    secret: SECRET,
    run: 'test',
    bytes: SHELF.bytes,
    leads: leadsOf(SHELF.family),
    journal: (entry) => Promise.resolve(void journal.push(entry)),
    ask: ({ to, ask }) => {
      if (ask === 'go-on') small.waits = false
      if (to !== undefined) small.start(to)
      return Promise.resolve('a person')
    },
    tell: () => undefined,
  }).over
  return { phase: state.phase, journal }
}

const kindsOf = (journal: readonly JournalEntry[]) =>
  journal.map(({ kind, command }) => `${kind} ${command}`)

describe('a device of somebody else’s', () => {
  it('conforms to what the link’s page says', async () => {
    small.start('loader')
    const modem = packageOf('H2.104.r4').images.find(({ role }) => role === 'modem')
    if (modem === undefined) throw new Error('no modem')
    const parts: Uint8Array[] = []
    for await (const part of SHELF.bytes(modem.sha256, 0, modem.size)) parts.push(part)
    const found = await conform({
      address: { kind: 'tcp', host: '127.0.0.1', port },
      secret: SECRET,
      image: Buffer.concat(parts),
      partition: 'modem',
      mode: 'loader',
      never: 'calib',
      epoch: 1,
    })
    expect(
      found.flatMap(({ claim, wrong }) => (wrong === undefined ? [] : [`${claim}: ${wrong}`])),
    ).toEqual([])
  }, 60_000)

  it.each([
    ['whole', undefined],
    ['with its cable out in the loader', { piece: 1, bytes: 1000 }],
    ['with its cable out in main', { piece: 6, bytes: 5000 }],
  ])('is written as the rehearsal says, %s', async (_, cable) => {
    const plan = planned('H2.104.r4')
    const twin = rehearse(scene.nature, scene.before, plan).end
    const { at, bytes } = small.born.parts['customer'] ?? { at: 0, bytes: 0 }
    const customer = Buffer.from(small.born.flash.subarray(at, at + bytes))
    small.cable = cable
    const { phase, journal } = await run(plan)
    expect(phase.kind).toBe(twin.state.phase.kind)
    expect(kindsOf(journal)).toEqual(kindsOf(twin.journal))
    const { outcome, floors, loaderVersion } = twin.device
    expect(small.facts()).toMatchObject({
      build: 'H2.104.r4',
      outcome,
      floor: floors.all,
      loaderVersion,
    })
    const images = packageOf('H2.104.r4').images.map(({ partition, sha256 }) => [partition, sha256])
    expect(images.map(([partition = '']) => [partition, small.holds(partition)])).toEqual(images)
    expect(small.born.flash.subarray(at, at + bytes).equals(customer)).toBe(true)
  })

  it('loops where the rehearsal says it loops: of two builds, and under a loader that is too old', async () => {
    const write = async (part: string, build: string) => {
      const image = packageOf(build).images.find(({ role }) => role === part)
      const place = small.born.parts[part]
      if (image === undefined || place === undefined) throw new Error(`no ${part}`)
      let at = place.at
      for await (const bytes of SHELF.bytes(image.sha256, 0, image.size)) {
        small.born.flash.set(bytes, at)
        at += bytes.length
      }
    }
    const started = () => {
      small.start('normal')
      return small.outcome
    }
    expect(started()).toBe('normal')
    await write('kernel', 'H2.104.r4')
    expect(started()).toBe('loop')
    for (const part of ['main', 'support']) await write(part, 'H2.104.r4')
    expect(started()).toBe('loop')
    for (const part of ['kernel', 'main', 'support']) await write(part, 'H2.0ZC.r4')
    expect(started()).toBe('normal')
  })
})
