/**
 * The layout that a family's device of a storage size should have, and the partition table of a simulated one. Reads the
 * profile and a declared scale (a demo device of 1:256 holds a 256th of each partition); gives layout and table.
 */
import type { Table } from '../layout/table.ts'
import type { Layout } from '../layout/wanted.ts'
import { arraySectors } from '../layout/encode.ts'
import type { Family } from './profile.ts'
import type { PartRole, Slot } from '../terms/device.ts'

const MIB = 1024 * 1024
const KIB = 1024
/** Partitions begin at a multiple of this. */
const ALIGN_BYTES = 4096

/** A device as far as its layout hangs on it; what is not known of it takes no row of its own. */
export type LaidOut = {
  readonly storageGb: number
  readonly model?: string
  readonly board?: string
}

type Placed = Family['partitions'][number]

/** The partitions of a device in device order, with the sizes of its row. */
export function partitionsOf(family: Family, { model, board }: LaidOut): readonly Placed[] {
  const row = family.layouts.find(
    ({ models, boards }) => isIn(models, model) && isIn(boards, board),
  )
  if (row === undefined) return family.partitions
  const order = row.order ?? family.partitions.map(({ name }) => name)
  return order.flatMap((name) => {
    const own = family.partitions.find((one) => one.name === name)
    if (own === undefined || row.without?.includes(name) === true) return []
    const mib = row.mib?.[name]
    return [mib === undefined ? own : { ...own, mib }]
  })
}

const isIn = (listed: readonly string[] | undefined, one: string | undefined): boolean =>
  listed === undefined || (one !== undefined && listed.includes(one))

/** MiB of a partition on a device; undefined for the one that takes the rest, or that it does not have. */
export function mibOf(family: Family, name: string, about: LaidOut): number | undefined {
  const placed = partitionsOf(family, about).find((one) => one.name === name)
  return placed === undefined ? undefined : mibIn(placed, about)
}

/** MiB of a partition as it is placed; undefined for the one that takes the rest, or of which this storage has no size. */
export function mibIn({ mib }: Pick<Placed, 'mib'>, { storageGb }: LaidOut): number | undefined {
  if (mib === 'rest') return undefined
  return typeof mib === 'number' ? mib : mib[String(storageGb)]
}

/** Flash of a device whose table was not read: its partitions, and as much again for the customer. */
const ROOM = 2

/** The table that a device of a family should have, of a flash with room for it: where none was read. */
export function assumedTable(family: Family, about: LaidOut, scale: number): Table {
  const mib = partitionsOf(family, about).reduce(
    (total, one) => total + (mibIn(one, about) ?? 0),
    0,
  )
  return familyTable(family, about, scale, Math.ceil((mib * ROOM) / scale + 1) * MIB)
}

/** The role a partition has. */
export const roleOf = (family: Family, partition: string): PartRole | undefined =>
  family.partitions.find(({ name }) => name === partition)?.role

/**
 * The partitions that an image may go to: the one it names, or, where its package knows of no slots, the part
 * of its role in each.
 */
export function placesOf(
  family: Family,
  { partition, role }: { readonly partition: string; readonly role: PartRole },
): readonly Placed[] {
  const named = family.partitions.filter(({ name }) => name === partition)
  if (named.length > 0) return named
  return family.partitions.filter((one) => one.role === role && one.slot !== undefined)
}

/** The slot a partition is of; undefined: it is of none. */
export const slotOf = (family: Family, partition: string): Slot | undefined =>
  family.partitions.find(({ name }) => name === partition)?.slot

/** Ids of the partitions of simulated devices are made from the family and the name, so that equal ones are equal byte by byte. */
function idOf(text: string): string {
  let hex = ''
  for (let index = 0; hex.length < 32; index += 1) {
    let value = 2166136261 + index
    for (const letter of text) value = Math.imul(value ^ letter.charCodeAt(0), 16777619)
    hex += (value >>> 0).toString(16).padStart(8, '0')
  }
  return hex
}

/** The type of a partition of which nobody says another: data of a file system (UEFI's table, as partition tools name it). */
const DATA_TYPE = typeBytes('0fc63daf-8483-4772-8e79-3d69d8477de4')

/** A type as people write it, in the order of its bytes on the storage: its first three groups are little-endian (UEFI, appendix A). */
export function typeBytes(guid: string): string {
  const [a = '', b = '', c = '', d = '', e = ''] = guid.toLowerCase().split('-')
  const turned = [a, b, c].map((part) =>
    part.replace(/../g, '$& ').trim().split(' ').reverse().join(''),
  )
  return [...turned, d, e].join('')
}

/**
 * What a family gives of a device's layout: order, names and sizes, and start and type where its file says them. `scale`
 * divides every size; where it is not 1, a start is not given: a small table has another beginning. Undefined when the
 * family names no size for this storage.
 */
export function layoutOf(family: Family, about: LaidOut, scale: number): Layout | undefined {
  const placed = partitionsOf(family, about)
  const isUnsized = placed.some((one) => one.mib !== 'rest' && mibIn(one, about) === undefined)
  if (isUnsized) return undefined
  return {
    partitions: placed.map((one) => ({
      name: one.name,
      bytes: sizeOf(mibIn(one, about), scale),
      ...(one.type === undefined ? {} : { type: typeBytes(one.type) }),
      ...(one.startKiB === undefined || scale !== 1 ? {} : { startBytes: one.startKiB * KIB }),
    })),
  }
}

/** Bytes of a partition at a scale, in whole blocks where that is not 1; undefined where it takes the rest. */
function sizeOf(mib: number | undefined, scale: number): number | undefined {
  if (mib === undefined) return undefined
  const bytes = (mib * MIB) / scale
  return scale === 1 ? Math.ceil(bytes) : Math.ceil(bytes / ALIGN_BYTES) * ALIGN_BYTES
}

/**
 * The table of a simulated device, and of one whose own was not read. `scale` divides every size; `diskBytes` is the real size of its flash.
 * Throws RangeError when the family names no size for this storage.
 */
export function familyTable(
  family: Family,
  about: LaidOut,
  scale: number,
  diskBytes: number,
): Table {
  const size = family.sectorBytes
  const diskSectors = Math.floor(diskBytes / size)
  const align = ALIGN_BYTES / size
  const firstUsable = 2 + arraySectors(size)
  const lastUsable = diskSectors - 2 - arraySectors(size)
  let next = Math.ceil(firstUsable / align) * align
  const partitions = partitionsOf(family, about).map((placed) => {
    const { name, type } = placed
    const whole = mibIn(placed, about)
    if (placed.mib !== 'rest' && whole === undefined)
      throw new RangeError(`${family.id}: no size of ${name} for ${about.storageGb} GB`)
    const bytes = whole === undefined ? undefined : (whole * MIB) / scale
    const sectors =
      bytes === undefined ? lastUsable - next + 1 : Math.ceil(bytes / ALIGN_BYTES) * align
    const start = next
    next += sectors
    return {
      name,
      start,
      sectors,
      type: type === undefined ? DATA_TYPE : typeBytes(type),
      id: idOf(`${family.id} ${name} ${about.storageGb}`),
      attributes: 0n,
    }
  })
  return {
    sectorBytes: size,
    diskId: idOf(`${family.id} ${about.storageGb}`),
    diskSectors,
    firstUsable,
    lastUsable,
    partitions,
  }
}
