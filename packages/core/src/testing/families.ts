/** The demo's three families with packages and devices of each, for core's tests. */
import { readFileSync } from 'node:fs'
import { parse } from 'yaml'
import { identify } from '../device/identity.ts'
import { readingsOf } from '../device/over-link.ts'
import { familyTable, roleOf, slotOf } from '../family/layout.ts'
import type { Family } from '../family/profile.ts'
import { familySchema } from '../family/file.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Case } from '../match/rule.ts'
import { USUAL_HOUSE } from '../match/house.ts'
import { NO_HISTORY } from '../match/rule.ts'
import type { PartRole, Slot } from '../terms/device.ts'
import { BLOCK_BYTES } from '../twin/blocks.ts'
import type { ImageFacts } from '../twin/images.ts'
import { catalogueOf } from '../twin/images.ts'
import { packagesOf } from '../twin/packages.ts'
import type { DeviceModel, Part } from '../twin/state.ts'
import { partOf } from '../twin/state.ts'
import type { Nature } from '../twin/stepped.ts'
import { factsOf } from '../twin/told.ts'
import { reading } from './devices.ts'
import { SCALE, digestOf, image, pack, proven } from './packages.ts'
import { USUAL_STATE } from './state.ts'

const read = (name: string): Family =>
  familySchema.parse(
    parse(readFileSync(new URL(`../../../../demo/families/${name}.yaml`, import.meta.url), 'utf8')),
  )

export const alder = read('alder')
export const fen = read('fen')

const MIB = 1024 * 1024
const DISK_BYTES = 128 * MIB

/** A full package of a family: every part that is written, for one model, board and row. */
export function packageOf(
  family: Family,
  more: Partial<Manifest> & {
    readonly build: string
    readonly model: string
    readonly board: string
  },
): Manifest {
  const { model, board, ...rest } = more
  const { chipset = '', storages = [] } = family.models.find(({ code }) => code === model) ?? {}
  const roles = family.writeOrder
  return pack({
    maker: family.maker,
    family: family.id,
    id: `${family.id}-${more.build}-${more.kind ?? 'full'}`,
    roles,
    loaderVersion: 31,
    together: [[...family.signedSet]],
    targets: [
      { model, boards: [board], chipset, storage: [...storages], region: 'HI', carriers: ['O'] },
    ],
    images: roles.map((role) => image(role, more.build)),
    ...rest,
  })
}

/** A part that is not the maker's, made from a build. */
export const modifiedOf = (manifest: Manifest, role: PartRole): ImageFacts => {
  const facts = catalogueOf([manifest]).get(digestOf(`${role} ${manifest.build}`))
  if (facts === undefined) throw new Error(`no ${role} in ${manifest.build}`)
  return { ...facts, image: digestOf(`own ${role} ${manifest.build}`), modified: true }
}

/** The id fused into the device of a family that `benchOf` makes. */
export const deviceIdOf = ({ id }: Pick<Family, 'id'>): string => `${id.toUpperCase()}-ID-1`

export type Bench = {
  readonly family: Family
  readonly nature: Nature
  readonly device: DeviceModel
  readonly shelf: readonly Manifest[]
}

export type OnBench = {
  readonly family: Family
  readonly on: Manifest
  readonly shelf?: readonly Manifest[]
  /** Parts that hold something else, by role. */
  readonly own?: readonly ImageFacts[]
  /** What the other slot holds; the same where nothing is said. */
  readonly other?: Manifest
  readonly more?: Partial<DeviceModel>
}

/** A device on which a package stands, with everything that is known of images. */
export function benchOf({
  family,
  on,
  shelf = [],
  own = [],
  other = on,
  more = {},
}: OnBench): Bench {
  const [target] = on.targets
  if (target === undefined) throw new Error('no target')
  const { model, chipset, storage, boards } = target
  const [board = '', storageGb = 64] = [boards[0], storage[0]]
  const table = familyTable(family, { model, board, storageGb }, SCALE, DISK_BYTES)
  const has = (manifest: Manifest, role: PartRole) =>
    manifest.images.find((one) => one.role === role)?.sha256
  const parts = table.partitions.map(({ name, sectors }): readonly [string, Part] => {
    const role = roleOf(family, name) ?? 'cache'
    const slot = slotOf(family, name)
    const blocks = Math.floor((sectors * table.sectorBytes) / BLOCK_BYTES)
    const mine = own.find((one) => one.role === role)?.image
    const was = slot === 'b' ? has(other, role) : (mine ?? has(on, role))
    return [name, partOf(role, blocks, was, slot)]
  })
  const slots = family.partitions.some(({ slot }) => slot !== undefined)
  const all = [...new Set([on, other, ...shelf])]
  const catalogue = new Map([...catalogueOf(all), ...own.map((one) => [one.image, one] as const)])
  const { release, patchDate, track = '', generation } = on
  const floors =
    family.floors.kept === 'one'
      ? { all: generation }
      : { loader: generation, modem: generation, main: generation }
  const device: DeviceModel = {
    ...USUAL_STATE,
    serial: `${family.id.toUpperCase()}0000001`,
    fused: {
      model,
      board,
      chipset,
      storageGb,
      region: 'HI',
      carrier: 'O',
      deviceId: deviceIdOf(family),
    },
    mode: family.modes.find(({ kind }) => kind === 'system')?.id ?? '',
    parts: Object.fromEntries(parts),
    battery: 90,
    floors,
    loaderVersion: on.loaderVersion ?? 0,
    slots: slots ? { runs: 'a' as Slot, tries: undefined, good: ['a', 'b'] } : undefined,
    data: { form: 'readable', release, patchDate, track, resetAsked: false, items: 12, bytes: 900 },
    ...more,
  }
  return {
    family,
    nature: { family, catalogue, packages: packagesOf(all), scale: SCALE, pick: 0.5 },
    device,
    shelf: all,
  }
}

/** Everything that any of its modes would show, read over the link. */
export function identityOf({ family, nature, device }: Bench) {
  const readings = family.modes.flatMap(({ id }) =>
    readingsOf(factsOf(nature, { ...device, mode: id })),
  )
  return identify(family, [
    ...readings,
    reading('accountLock', 'absent'),
    reading('batteryHealth', 'sound'),
  ])
}

/** The case of a package on a bench. */
export function caseOf(bench: Bench, aim: Manifest, more: Partial<Case> = {}): Case {
  const { family, device, shelf } = bench
  return {
    family,
    identity: identityOf(bench),
    shelved: proven(aim),
    house: USUAL_HOUSE,
    intent: 'update',
    keepData: true,
    table: familyTable(family, device.fused, SCALE, DISK_BYTES),
    evidence: new Map(),
    shelf: [...new Set([...shelf, aim])].map(proven),
    byEye: false,
    placeless: [],
    lines: undefined,
    history: NO_HISTORY,
    today: '2026-10-15',
    ...more,
  }
}
