/**
 * The model of a device that is only known by what was read of it: for a rehearsal before anything is
 * written. Reads facts, its table and digests where they were read, and the shelf; gives a device model
 * and the facts of every image that may stand on it. What was not read is assumed, and what was assumed is
 * said: of parts and of facts.
 */
import type { Family } from '../family/profile.ts'
import { assumedTable, roleOf, slotOf } from '../family/layout.ts'
import { modelOf } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Table } from '../layout/table.ts'
import type { Fact, PartRole, Slot } from '../terms/device.ts'
import type { ImageFacts, SignedBuild } from '../twin/images.ts'
import { catalogueOf } from '../twin/images.ts'
import { packagesOf } from '../twin/packages.ts'
import type { DeviceModel, Floors, Part } from '../twin/state.ts'
import { partOf } from '../twin/state.ts'
import { BLOCK_BYTES } from '../twin/blocks.ts'
import type { Nature } from '../twin/stepped.ts'
import type { DeviceFacts, Fused } from '../wire/facts.ts'
import { isRowOf } from '../family/builds.ts'
import { floorFact } from '../wire/facts.ts'

export type ReadDevice = {
  readonly facts: DeviceFacts
  readonly table: Table | undefined
  /** The device's own digests, by partition. */
  readonly digests: ReadonlyMap<string, string>
}

export type Modelled = {
  readonly nature: Nature
  readonly device: DeviceModel
  /** Partitions whose content was not read, but assumed. */
  readonly assumed: readonly string[]
  /** Facts that were not read, with what was assumed of each. */
  readonly assumedFacts: Readonly<Partial<Record<Fact, string | number>>>
}

/** Makes the model. `pick` says where in the family's ranges it lies, 0 to 1. */
export function modelled(
  family: Family,
  read: ReadDevice,
  shelf: readonly Manifest[],
  pick = 0.5,
): Modelled {
  const { facts } = read
  const assumedFacts: Partial<Record<Fact, string | number>> = {}
  const taken: Taken = (fact, value, usual) => {
    if (value !== undefined) return value
    assumedFacts[fact] = usual
    return usual
  }
  const present = shelf.find(
    ({ build, kind, carried }) => build === facts.build && kind === 'full' && carried === undefined,
  )
  const made = madeOf(family, facts, present, taken)
  const known = new Map(catalogueOf(shelf))
  const { parts, assumed } = partsOf(family, read, { made, present, known })
  const { release, patchDate, track } = made
  const device: DeviceModel = {
    serial: facts.serial,
    fused: made.fused,
    mode: facts.mode,
    parts,
    session: undefined,
    files: [],
    incoming: undefined,
    confirmBy: undefined,
    key: 'none',
    permit: undefined,
    spent: [],
    battery: taken('batteryPercent', facts.batteryPercent, FULL),
    floors: made.floors,
    lock: taken('bootLock', facts.bootLock, 'closed'),
    lockSwitch: false,
    setUpAt: undefined,
    permission: true,
    loaderVersion: made.loaderVersion,
    slots: slotsOf(family, facts.slot),
    merge: facts.merge ?? 'none',
    mergeUntil: undefined,
    data: { ...DATA, release, patchDate, track },
    account: 'none',
    marks: facts.marks ?? [],
    fresh: false,
    outcome: facts.outcome,
    limits: facts.limits ?? [],
    shows: facts.shows,
    returns: facts.returns,
    epoch: 0,
    at: 0,
  }
  const nature = { family, catalogue: known, packages: packagesOf(shelf), scale: facts.scale, pick }
  return { assumed, assumedFacts, nature, device }
}

/** Data of which nothing was counted: there, and open. */
const DATA = { form: 'readable', resetAsked: false, items: 0, bytes: 0 } as const

/** Who and of what it is, as far as it was read; else the usual of its model and of the build it reports. */
function madeOf(
  family: Family,
  facts: DeviceFacts,
  present: Manifest | undefined,
  taken: Taken,
): Made {
  const model = modelOf(family, facts.model)
  return {
    fused: {
      model: facts.model,
      board: taken('board', facts.board, model?.boards[0] ?? ''),
      chipset: taken('chipset', facts.chipset, model?.chipset ?? ''),
      storageGb: taken('storageGb', facts.storageGb, model?.storages[0] ?? 1),
      region: taken('region', facts.region, ''),
      carrier: taken('carrier', facts.carrier, ''),
      ...(facts.deviceId === undefined ? {} : { deviceId: facts.deviceId }),
    },
    build: facts.build ?? '',
    release: taken('release', facts.release, present?.release ?? 0),
    patchDate: taken('patchDate', facts.patchDate, present?.patchDate ?? ''),
    track: facts.track ?? present?.track ?? '',
    loaderVersion: taken('loaderVersion', facts.loaderVersion, present?.loaderVersion ?? 0),
    floors: floorsOf(family, facts, taken),
  }
}

type Stands = {
  readonly made: Made
  readonly present: Manifest | undefined
  /** Facts of images; what stands there and is on no shelf is added. */
  readonly known: Map<string, ImageFacts>
}

/** What the build it reports has there; a loader of another version than that build's is not that one. */
function usualOn(
  { name, role }: { readonly name: string; readonly role: PartRole },
  { loaderVersion }: DeviceFacts,
  { present }: Stands,
): string | undefined {
  const other = loaderVersion !== undefined && loaderVersion !== present?.loaderVersion
  if (role === 'loader' && other) return undefined
  return present?.images.find(({ partition }) => partition === name)?.sha256
}

/** What stands on each partition: what its digest says, else the usual of the build it reports. */
function partsOf(family: Family, { facts, digests, table }: ReadDevice, stands: Stands) {
  const { made, known } = stands
  const assumed: string[] = []
  const laid = table ?? assumedTable(family, made.fused, facts.scale)
  const parts = laid.partitions.map(({ name, sectors }): readonly [string, Part] => {
    const role = roleOf(family, name) ?? 'cache'
    const blocks = Math.floor((sectors * laid.sectorBytes) / BLOCK_BYTES)
    const usual = usualOn({ name, role }, facts, stands)
    const digest = digests.get(name)
    if (digest === undefined) assumed.push(name)
    const was = digest ?? usual ?? `${role} of ${facts.build ?? 'the device'}`
    const rows = rowsOf(family, known, role, made.build)
    known.set(
      was,
      standing(known.get(was), madeUp({ image: was, role, blocks }, made), rows, digest),
    )
    return [name, partOf(role, blocks, was, slotOf(family, name))]
  })
  return { parts: Object.fromEntries(parts), assumed }
}

/** Percent of a cell whose charge was not read: the gate asks for it before anything is begun. */
const FULL = 100

/** What a device is of as far as it was read. */
type Made = {
  readonly fused: Fused
  readonly build: string
  readonly release: number
  readonly patchDate: string
  readonly track: string
  readonly loaderVersion: number
  readonly floors: Floors
}

type Taken = <Value extends string | number>(
  fact: Fact,
  value: Value | undefined,
  usual: Value,
) => Value

/** The floors that the family keeps, each as it was read. */
function floorsOf({ floors }: Family, facts: DeviceFacts, taken: Taken): Floors {
  const roles: readonly (PartRole | 'all')[] =
    floors.kept === 'one'
      ? ['all']
      : [...new Set(floors.rules.flatMap(({ roles: of }) => (of === 'any' ? [] : of)))]
  return Object.fromEntries(
    roles.map((role) => {
      const fact = floorFact(role)
      const here = facts[fact as keyof DeviceFacts]
      return [role, taken(fact, typeof here === 'number' ? here : undefined, 0)]
    }),
  )
}

/** Of a family with slots: the one that is told to run, else the first; both taken to have been good. */
function slotsOf(family: Family, slot: Slot | undefined): DeviceModel['slots'] {
  const own = family.partitions.flatMap((part) => part.slot ?? [])
  const [first] = own
  if (first === undefined) return undefined
  return { runs: slot ?? first, tries: undefined, good: [...new Set(own)].sort() }
}

/** What the shelf knows of a role's images in other rows of the device's build. */
const rowsOf = (
  family: Family,
  known: ReadonlyMap<string, ImageFacts>,
  role: PartRole,
  build: string,
): readonly SignedBuild[] =>
  [...known.values()].flatMap((one) =>
    one.role === role ? one.builds.filter((other) => isRowOf(family, other.build, build)) : [],
  )

/**
 * An image as it stands there. Rows of one build share what is no variant: one that the shelf knows in another row is
 * of the device's own too; one that was not read is taken to be shared, and named among what was assumed.
 */
function standing(
  here: ImageFacts | undefined,
  own: ImageFacts,
  rows: readonly SignedBuild[],
  digest: string | undefined,
): ImageFacts {
  if (own.role === 'variant') return here ?? own
  if (here === undefined)
    return digest === undefined ? { ...own, builds: [...own.builds, ...rows] } : own
  const mine = here.builds.some(({ build }) => own.builds.some((one) => one.build === build))
  const shared = here.builds.some(({ build }) => rows.some((one) => one.build === build))
  return mine || !shared ? here : { ...here, builds: [...here.builds, ...own.builds] }
}

/** An image that is on no shelf: whole, of the device's own build, started by its own loader. */
function madeUp(
  { image, role, blocks }: Pick<ImageFacts, 'image' | 'role' | 'blocks'>,
  made: Made,
): ImageFacts {
  const { build, release, patchDate, track, floors, loaderVersion } = made
  const signed: SignedBuild = {
    build,
    release,
    patchDate,
    track,
    generation: floors.all ?? floors[role] ?? 0,
    service: false,
    minLoader: 0,
    maxLoader: null,
    boards: [],
    chipsets: [],
    rows: [],
  }
  const own = role === 'loader' ? loaderVersion : null
  return { image, role, blocks, loaderVersion: own, modified: false, builds: [signed] }
}
