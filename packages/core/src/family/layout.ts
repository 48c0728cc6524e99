/**
 * The partition table that a family's device of a storage size should have. Reads the profile and a
 * declared scale (a demo device of 1:256 holds a 256th of each partition); gives the table.
 */
import type { Table } from '../layout/table.ts'
import { arraySectors } from '../layout/encode.ts'
import type { Family } from './profile.ts'
import type { PartRole, Slot } from '../terms/device.ts'

const MIB = 1024 * 1024
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
  const order = row?.order ?? family.partitions.map(({ name }) => name)
  return order.flatMap((name) => {
    const own = family.partitions.find((one) => one.name === name)
    if (own === undefined || row?.without?.includes(name) === true) return []
    return [{ ...own, mib: row?.mib?.[name] ?? own.mib }]
  })
}

const isIn = (listed: readonly string[] | undefined, one: string | undefined): boolean =>
  listed === undefined || (one !== undefined && listed.includes(one))

/** MiB of a partition on a device; undefined for the one that takes the rest, or that it does not have. */
export function mibOf(family: Family, name: string, about: LaidOut): number | undefined {
  const mib = partitionsOf(family, about).find((one) => one.name === name)?.mib
  if (mib === undefined || mib === 'rest') return undefined
  return typeof mib === 'number' ? mib : mib[String(about.storageGb)]
}

/** Flash of a device whose table was not read: its partitions, and as much again for the customer. */
const ROOM = 2

/** The table that a device of a family should have, of a flash with room for it: where none was read. */
export function assumedTable(family: Family, about: LaidOut, scale: number): Table {
  const mib = partitionsOf(family, about).reduce(
    (total, { name }) => total + (mibOf(family, name, about) ?? 0),
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

/** Type ids are made from the family and the name, so that equal layouts are equal byte by byte. */
function idOf(text: string): string {
  let hex = ''
  for (let index = 0; hex.length < 32; index += 1) {
    let value = 2166136261 + index
    for (const letter of text) value = Math.imul(value ^ letter.charCodeAt(0), 16777619)
    hex += (value >>> 0).toString(16).padStart(8, '0')
  }
  return hex
}

/**
 * The table of a device. `scale` divides every size; `diskBytes` is the real size of its flash.
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
  const partitions = partitionsOf(family, about).map(({ name, mib }) => {
    const whole = mib === 'rest' ? undefined : mibOf(family, name, about)
    if (mib !== 'rest' && whole === undefined)
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
      type: idOf(`${family.id} ${name}`),
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
