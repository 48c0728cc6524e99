/** Packages that a simulated device opens and installs by itself: by real bytes, in a small tree of real files. */
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { modeOfKind } from '@plain-slate/core'
import type { DeviceModel, Manifest } from '@plain-slate/core'
import { DEMO_DEVICES } from '@plain-slate/demo'
import { putFile, waitFor } from '@plain-slate/link'
import { openBench } from '@plain-slate/standins'
import type { SimulatedDevice } from '@plain-slate/standins'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { bytesAgainstMap } from '../agrees/compare.ts'
import type { Scene } from '../agrees/scene.ts'
import { SECRET, sceneOf } from '../agrees/scene.ts'
import { shelfAt } from '../agrees/shelf.ts'

const SHELF = shelfAt(4096)
const { family } = SHELF
const lead = DEMO_DEVICES.find(({ line }) => line.family === 'tarn')
if (lead === undefined) throw new Error('no handheld')
const NAME = 'a.tar'

describe('a package on the card of a handheld', () => {
  let scene: Scene
  beforeAll(async () => {
    const mode = modeOfKind(family, 'system')
    scene = await sceneOf(SHELF, { ...lead, loader: 7, mode, permission: true, battery: 90 })
  })
  afterAll(() => scene.end())

  const path = () => scene.flashPath.replace(/\.flash$/, '.files')
  const packageOn = (build: string): Manifest => {
    const found = SHELF.shelf.find(({ manifest }) => manifest.build === build)?.manifest
    if (found === undefined) throw new Error(`no ${build}`)
    return found
  }
  const newest = packageOn('H2.104.r4')
  const [archive] = newest.archives
  const { sha256: image = '', bytes: size = 0 } = archive ?? {}

  async function copied(epoch: number, bytes = SHELF.bytes) {
    const address = { kind: 'tcp', host: '127.0.0.1', port: scene.bench.ports['P1'] ?? 0 } as const
    const lease = { run: 'test', epoch }
    const wanted = { serial: lead?.serial ?? '', mode: undefined }
    const met = await waitFor(
      address,
      lease,
      SECRET,
      wanted,
      () => undefined,
      AbortSignal.timeout(9000),
    )
    if (met?.kind !== 'met') throw new Error('not met')
    const file = { kind: 'copy', mode: 'normal', store: 'card', name: NAME, size, image } as const
    const put = await putFile(met.link, lease, file, bytes, () => undefined)
    const digest = await met.link.ask({ verb: 'file-digest', store: 'card', name: NAME })
    met.link.close()
    return [put.kind === 'refused' ? put.code : put.kind, digest.answer] as const
  }
  const keys = (to: string) => scene.bench.act({ kind: 'keys', serial: lead.serial, to })
  const intoRescue = () => {
    scene.bench.act({ kind: 'cell-out', serial: lead.serial })
    keys('rescue')
  }
  const install = () => scene.bench.act({ kind: 'install', serial: lead.serial, store: 'card' })

  it('arrives as it was sent, or nothing of it stays', async () => {
    const flipped: typeof SHELF.bytes = async function* (one, from, to) {
      for await (const part of SHELF.bytes(one, from, to)) {
        const copy = Uint8Array.from(part)
        copy[0] = (copy[0] ?? 0) ^ 1
        yield copy
      }
    }
    const [refused, none] = await copied(1, flipped)
    expect([refused, none]).toMatchObject(['bad-digest', { answer: 'refused', code: 'no-file' }])
    const [kept, digest] = await copied(2)
    expect([kept, digest]).toMatchObject(['kept', { answer: 'digest', sha256: image }])
    expect(readFileSync(join(path(), 'card', NAME)).length).toBe(size)
  })

  it('that was damaged as it lay there is refused by the device, and nothing is written', async () => {
    const whole = readFileSync(join(path(), 'card', NAME))
    const odd = Uint8Array.from(whole)
    odd[Math.floor(size / 2)] = (odd[Math.floor(size / 2)] ?? 0) ^ 1
    writeFileSync(join(path(), 'card', NAME), odd)
    const before = scene.device.model.parts
    intoRescue()
    expect(install()).toBe('The file is no package, or not all of it.')
    writeFileSync(join(path(), 'card', NAME), whole.subarray(0, size / 2))
    expect(install()).toBe('The file is no package, or not all of it.')
    expect(scene.device.model.parts).toEqual(before)
    writeFileSync(join(path(), 'card', NAME), whole)
  })

  it('cut in the middle leaves parts new, one torn, the rest old: byte by byte; read again it is whole', async () => {
    scene.bench.act({ kind: 'cut', serial: lead.serial, piece: 1, bytes: 1, how: 'battery' })
    install()
    const kinds = new Set(
      Object.values(scene.device.model.parts).flatMap(({ map }) => map.map(({ kind }) => kind)),
    )
    expect([...kinds].sort()).toEqual(['image', 'old', 'torn'])
    expect(bytesAgainstMap(scene)).toEqual([])
    keys('rescue')
    expect(install()).toBeUndefined()
    expect(bytesAgainstMap(scene)).toEqual([])
    keys('normal')
    const { build, outcome } = scene.device.facts()
    expect([build, outcome]).toEqual(['H2.104.r4', 'normal'])
  })

  it('stays on its card when the bench is closed and opened; what its state does not know goes', async () => {
    writeFileSync(join(path(), 'card', 'stray.tar'), 'x')
    const folder = join(scene.flashPath, '..')
    const again = await openBench({
      folder,
      secret: SECRET,
      pace: 0,
      ports: {},
      families: [family],
      images: [...SHELF.catalogue.values()],
    })
    const [device] = again.devices() as readonly [SimulatedDevice]
    const files: DeviceModel['files'] = device.model.files
    expect(files).toEqual([{ store: 'card', name: NAME, size, holds: image }])
    expect(readdirSync(join(path(), 'card'))).toEqual([NAME])
    await again.stop()
    expect(existsSync(join(path(), 'card', NAME))).toBe(true)
  })
})
