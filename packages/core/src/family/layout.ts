/**
 * The partition table that a family's device of a storage size should have. Reads the profile and a
 * declared scale (a demo device of 1:256 holds a 256th of each partition); gives the table.
 */
import type { Table } from '../layout/table.ts'
import { arraySectors } from '../layout/encode.ts'
import type { Family } from './profile.ts'
import type { PartRole } from '../terms/device.ts'

const MIB = 1024 * 1024
/** Partitions begin at a multiple of this. */
const ALIGN_BYTES = 4096

/** MiB of a partition on a device of this storage; undefined for the one that takes the rest. */
export function mibOf(family: Family, name: string, storageGb: number): number | undefined {
  const mib = family.partitions.find((one) => one.name === name)?.mib
  if (mib === undefined || mib === 'rest') return undefined
  return typeof mib === 'number' ? mib : mib[String(storageGb)]
}

/** Flash of a device whose table was not read: its partitions, and as much again for the customer. */
const ROOM = 2

/** The table that a device of a family should have, of a flash with room for it: where none was read. */
export function assumedTable(family: Family, storageGb: number, scale: number): Table {
  const mib = family.partitions.reduce(
    (total, { name }) => total + (mibOf(family, name, storageGb) ?? 0),
    0,
  )
  return familyTable(family, storageGb, scale, Math.ceil((mib * ROOM) / scale + 1) * MIB)
}

/** The role a partition has. */
export const roleOf = (family: Family, partition: string): PartRole | undefined =>
  family.partitions.find(({ name }) => name === partition)?.role

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
  storageGb: number,
  scale: number,
  diskBytes: number,
): Table {
  const size = family.sectorBytes
  const diskSectors = Math.floor(diskBytes / size)
  const align = ALIGN_BYTES / size
  const firstUsable = 2 + arraySectors(size)
  const lastUsable = diskSectors - 2 - arraySectors(size)
  let next = Math.ceil(firstUsable / align) * align
  const partitions = family.partitions.map(({ name, mib }) => {
    const whole = mib === 'rest' ? undefined : mibOf(family, name, storageGb)
    if (mib !== 'rest' && whole === undefined)
      throw new RangeError(`${family.id}: no size of ${name} for ${storageGb} GB`)
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
      id: idOf(`${family.id} ${name} ${storageGb}`),
      attributes: 0n,
    }
  })
  return {
    sectorBytes: size,
    diskId: idOf(`${family.id} ${storageGb}`),
    diskSectors,
    firstUsable,
    lastUsable,
    partitions,
  }
}
