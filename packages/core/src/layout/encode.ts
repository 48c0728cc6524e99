/**
 * A partition table as bytes, after the UEFI specification 2.10, chapter 5: protective record, both
 * headers, both entry arrays, CRC-32s. Reads a table; gives the pieces with the places they lie at.
 * Throws RangeError for a table that cannot be written: a caller's bug.
 */
import { crc32 } from './crc32.ts'
import type { Partition, Table } from './table.ts'

/** UEFI 2.10, table 5-5: "EFI PART", revision 1.0, header of 92 bytes. */
export const SIGNATURE = 0x5452415020494645n
export const REVISION = 0x00010000
export const HEADER_BYTES = 92
export const ENTRY_BYTES = 128
export const ENTRY_COUNT = 128
/** UEFI 2.10, table 5-6: a name has 36 UTF-16 code units. */
export const NAME_UNITS = 36

/** A piece of the disk: where it begins, in bytes, and what stands there. */
export type Piece = { readonly at: number; readonly bytes: Uint8Array }

/** Sectors that the entry array takes. */
export const arraySectors = (sectorBytes: number): number =>
  Math.ceil((ENTRY_COUNT * ENTRY_BYTES) / sectorBytes)

/** The head (record, header, entries) and the backup (entries, header) of a table. */
export function encodeTable(table: Table): readonly Piece[] {
  if (table.partitions.length > ENTRY_COUNT)
    throw new RangeError(`${table.partitions.length} partitions in ${ENTRY_COUNT} entries`)
  const size = table.sectorBytes
  const entries = encodeEntries(table.partitions, arraySectors(size) * size)
  const last = table.diskSectors - 1
  const backupArray = last - arraySectors(size)
  const primary = encodeHeader(table, entries, { own: 1, other: last, array: 2 })
  const backup = encodeHeader(table, entries, { own: last, other: 1, array: backupArray })
  return [
    { at: 0, bytes: protectiveRecord(table) },
    { at: size, bytes: primary },
    { at: 2 * size, bytes: entries },
    { at: backupArray * size, bytes: entries },
    { at: last * size, bytes: backup },
  ]
}

/** UEFI 2.10, 5.2.3: one partition of type 0xEE over the whole disk, as far as 32 bits reach. */
function protectiveRecord(table: Table): Uint8Array {
  const bytes = new Uint8Array(table.sectorBytes)
  const view = new DataView(bytes.buffer)
  bytes.set([0, 0, 2, 0, 0xee, 0xff, 0xff, 0xff], 446)
  view.setUint32(454, 1, true)
  view.setUint32(458, Math.min(table.diskSectors - 1, 0xffffffff), true)
  bytes.set([0x55, 0xaa], 510)
  return bytes
}

function encodeEntries(partitions: readonly Partition[], length: number): Uint8Array {
  const bytes = new Uint8Array(length)
  const view = new DataView(bytes.buffer)
  partitions.forEach((one, index) => {
    const at = index * ENTRY_BYTES
    bytes.set(hexBytes(one.type), at)
    bytes.set(hexBytes(one.id), at + 16)
    view.setBigUint64(at + 32, BigInt(one.start), true)
    view.setBigUint64(at + 40, BigInt(one.start + one.sectors - 1), true)
    view.setBigUint64(at + 48, one.attributes, true)
    if (one.name.length > NAME_UNITS) throw new RangeError(`a name of ${one.name.length} units`)
    for (let unit = 0; unit < one.name.length; unit += 1)
      view.setUint16(at + 56 + unit * 2, one.name.charCodeAt(unit), true)
  })
  return bytes
}

function encodeHeader(
  table: Table,
  entries: Uint8Array,
  lba: { readonly own: number; readonly other: number; readonly array: number },
): Uint8Array {
  const bytes = new Uint8Array(table.sectorBytes)
  const view = new DataView(bytes.buffer)
  view.setBigUint64(0, SIGNATURE, true)
  view.setUint32(8, REVISION, true)
  view.setUint32(12, HEADER_BYTES, true)
  view.setBigUint64(24, BigInt(lba.own), true)
  view.setBigUint64(32, BigInt(lba.other), true)
  view.setBigUint64(40, BigInt(table.firstUsable), true)
  view.setBigUint64(48, BigInt(table.lastUsable), true)
  bytes.set(hexBytes(table.diskId), 56)
  view.setBigUint64(72, BigInt(lba.array), true)
  view.setUint32(80, ENTRY_COUNT, true)
  view.setUint32(84, ENTRY_BYTES, true)
  view.setUint32(88, crc32(entries.subarray(0, ENTRY_COUNT * ENTRY_BYTES)), true)
  view.setUint32(16, crc32(bytes.subarray(0, HEADER_BYTES)), true)
  return bytes
}

function hexBytes(hex: string): Uint8Array {
  if (!/^[0-9a-f]{32}$/.test(hex)) throw new RangeError(`not 32 hex digits: ${hex}`)
  return Uint8Array.from(hex.match(/../g) ?? [], (pair) => Number.parseInt(pair, 16))
}
