/** What is looked at again as a device is met: its real table, and the real bytes of what is left alone. */
import { encodeTable, familyTable, modeOfKind } from '@plain-slate/core'
import type { Evidence, Plan } from '@plain-slate/core'
import { DEMO_DEVICES } from '@plain-slate/demo'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { Scene } from '../agrees/scene.ts'
import { onStandIn, planFor, sceneOf } from '../agrees/scene.ts'
import { shelfAt } from '../agrees/shelf.ts'

const SHELF = shelfAt(4096)
const lead = DEMO_DEVICES.find(({ line }) => line.family === 'tarn')
const aim = SHELF.shelf.find(({ manifest }) => manifest.build === 'H2.0ZP.r4')?.manifest
if (lead === undefined || aim === undefined) throw new Error('no handheld')

describe('a device that is not any more what its plan was made on', () => {
  let scene: Scene
  let plan: Plan
  beforeEach(async () => {
    const mode = modeOfKind(SHELF.family, 'system')
    scene = await sceneOf(SHELF, { ...lead, mode, permission: true, battery: 90 })
    const same = aim.images.find(({ role }) => role === 'variant')
    const evidence = new Map<string, Evidence>([
      ['variant', { kind: 'digest', sha256: same?.sha256 ?? '' }],
    ])
    const wish = { aim, evidence, intent: 'update', keepData: true, way: undefined } as const
    const made = planFor(scene, wish)
    if (made === undefined) throw new Error('no plan')
    plan = made
  })
  afterEach(() => scene.end())

  const wrote = () =>
    Object.values(scene.device.model.parts).some(({ map }) =>
      map.some(({ kind }) => kind !== 'old'),
    )

  it('is written where its table and what is left alone are as they were', async () => {
    expect((await onStandIn(scene, plan, undefined, 'ended')).phase).toBe('ended')
  })

  it('with another table stops before the first verb that writes', async () => {
    const { device } = scene
    const table = familyTable(SHELF.family, device.model.fused, SHELF.scale, device.file.diskBytes)
    const moved = table.partitions.map((one) =>
      one.name === 'cache' ? { ...one, sectors: one.sectors - 8 } : one,
    )
    for (const { at, bytes } of encodeTable({ ...table, partitions: moved }))
      device.flash.write(at, bytes)
    const { phase, why } = await onStandIn(scene, plan, undefined, 'stopped')
    expect([phase, why, wrote()]).toEqual([
      'stopped',
      { kind: 'other-table', differ: [{ partition: 'cache', how: 'resized' }] },
      false,
    ])
  })

  it('with another byte in what is left alone stops before it too; elsewhere that byte changes nothing', async () => {
    const { device } = scene
    const at = device.file.starts['variant'] ?? 0
    device.flash.write(at, Uint8Array.of((device.flash.read(at, 1)[0] ?? 0) ^ 1))
    const { phase, why } = await onStandIn(scene, plan, undefined, 'stopped')
    expect([phase, why, wrote()]).toEqual([
      'stopped',
      { kind: 'not-equal', partition: 'variant' },
      false,
    ])
  })
})
