/** Tables that anybody else makes: judged by what the family gives of them, written on a device that has one. */
import {
  compareLayout,
  familyTable,
  layoutOf,
  modeOfKind,
  textDifferences,
} from '@plain-slate/core'
import type { Family, Table } from '@plain-slate/core'
import { DEMO_DEVICES, familyNamed } from '@plain-slate/demo'
import { afterEach, describe, expect, it } from 'vitest'
import type { Scene } from '../agrees/scene.ts'
import { onStandIn, planFor, sceneOf } from '../agrees/scene.ts'
import { shelfAt } from '../agrees/shelf.ts'
import { byParted, bySgdisk } from './foreign.ts'

const MIB = 1024 * 1024
const SCALE = 256
const about = { model: 'BRAK-H2K', board: 'r4', storageGb: 32 }
const tarn = familyNamed('tarn')
const fen = familyNamed('fen')
const tablet = { model: 'OSTR-11A', storageGb: 64 }
const DISK = 128 * MIB

const differences = (
  table: Table,
  family: Family = tarn,
  of: object = about,
): readonly string[] => {
  const layout = layoutOf(family, of as typeof about, SCALE)
  if (layout === undefined) throw new Error('no layout')
  return compareLayout(table, layout).map(({ name, how }) => `${name} ${how}`)
}
const ours = familyTable(tarn, about, SCALE, DISK)

describe('a table made by sgdisk', () => {
  it.each([
    ['at sgdisk’s usual place', { first: 2048 }],
    ['from an odd first sector on', { first: 63 }],
    ['with gaps', { first: 2048, gap: 7 }],
    ['aligned to 1 MiB, with gaps that follow from it', { first: 2048, align: 2048 }],
    ['of another common type', { first: 2048, type: '0700' }],
  ])('%s equals the layout of the family, which says nothing of that', (_where, made) => {
    const { table } = bySgdisk(made)(DISK, ours)
    expect(differences(table)).toEqual([])
  })

  it('that lacks one, has one more, or another size or order, is told by name', () => {
    const change = (how: (parts: Table['partitions']) => Table['partitions']) =>
      differences(
        bySgdisk({ first: 2048 })(DISK, { ...ours, partitions: how(ours.partitions) }).table,
      )
    const [first] = ours.partitions
    if (first === undefined) throw new Error('no partition')
    expect(change((parts) => parts.filter(({ name }) => name !== 'cache'))).toEqual([
      'cache missing',
    ])
    expect(change((parts) => [{ ...first, name: 'extra' }, ...parts])).toEqual(['extra added'])
    expect(
      change((parts) =>
        parts.map((one) => (one.name === 'cache' ? { ...one, sectors: one.sectors + 8 } : one)),
      ),
    ).toEqual(['cache resized'])
    const turned = change(([a, b, ...rest]) => [b ?? first, a ?? first, ...rest])
    expect(turned).toEqual([
      `${ours.partitions[0]?.name} moved`,
      `${ours.partitions[1]?.name} moved`,
    ])
  })

  it('whose type or start the family does give is compared by them too', () => {
    const { table } = bySgdisk({ first: 2048 })(DISK, ours)
    const typed = (type: string): Family => ({
      ...tarn,
      partitions: tarn.partitions.map((one) => (one.name === 'cache' ? { ...one, type } : one)),
    })
    expect(differences(table, typed('0FC63DAF-8483-4772-8E79-3D69D8477DE4'))).toEqual([])
    expect(differences(table, typed('ebd0a0a2-b9e5-4433-87c0-68b6b72699c7'))).toEqual([
      'cache retyped',
    ])
  })
})

describe('a table made by parted', () => {
  it('equals the layout, on a storage of 4,096-byte sectors too', () => {
    expect(differences(byParted({ first: 34 })(DISK, ours).table)).toEqual([])
    const wide = familyTable(fen, tablet, SCALE, DISK)
    expect(wide.sectorBytes).toBe(4096)
    const { table } = byParted({ first: 256 })(DISK, wide)
    expect(differences(table, fen, tablet)).toEqual([])
  })
})

describe('two tables as texts', () => {
  it('differ partition by partition, and not in what nobody gave', () => {
    const here = '512\nloader 34 16 aa\nmain one 50 100 bb\ncustomer 150 end cc'
    expect(textDifferences(here, here)).toEqual([])
    expect(textDifferences(here, '512\nloader * 16 *\nmain one * 100 *\ncustomer * end *')).toEqual(
      [],
    )
    expect(textDifferences(here, here.replace('50 100', '58 100'))).toEqual([
      { name: 'main one', how: 'moved' },
    ])
    expect(textDifferences(here, here.replace('100 bb', '100 bd'))).toEqual([
      { name: 'main one', how: 'retyped' },
    ])
    expect(textDifferences(here, here.replace('512', '4096'))).not.toEqual([])
  })
})

describe('a device whose table somebody else made', () => {
  const SHELF = shelfAt(4096)
  let scene: Scene | undefined
  afterEach(() => scene?.end())

  it.each([
    ['sgdisk', bySgdisk({ first: 2048, gap: 7 })],
    ['parted', byParted({ first: 63 })],
  ])('by %s is planned for, met, written and proven', async (_who, tableOf) => {
    const lead = DEMO_DEVICES.find(({ line }) => line.family === 'tarn')
    const aim = SHELF.shelf.find(({ manifest }) => manifest.build === 'H2.0ZP.r4')?.manifest
    if (lead === undefined || aim === undefined) throw new Error('no handheld')
    const mode = modeOfKind(SHELF.family, 'system')
    scene = await sceneOf(SHELF, { ...lead, mode, permission: true, battery: 90 }, tableOf)
    const wish = { aim, evidence: new Map(), intent: 'update', keepData: true } as const
    const plan = planFor(scene, { ...wish, way: undefined })
    if (plan === undefined) throw new Error('no plan')
    const { phase, device } = await onStandIn(scene, plan, undefined, 'ended')
    expect([phase, device.outcome]).toEqual(['ended', 'normal'])
  })
})
