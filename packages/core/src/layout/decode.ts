/**
 * Reading a partition table from bytes that are asked for range by range ("need bytes a to b"), after
 * the UEFI specification 2.10, chapter 5. Gives the table of the copy that holds (the primary when both
 * do) with its problems, or why there is none. Sizes are checked before anything is allocated.
 */
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'
import { crc32 } from './crc32.ts'
import { HEADER_BYTES, NAME_UNITS, SIGNATURE } from './encode.ts'
import type { TableProblem, Taken } from './problems.ts'
import { problemsOf } from './problems.ts'
import type { Partition, Table } from './table.ts'

/** Sector sizes that are tried when none is given. */
export const SECTOR_SIZES = [512, 4096] as const
/** More entries, or larger ones, are refused: no device has them, and a lying header must cost nothing. */
export const ENTRIES_MAX = 1024
export const ENTRY_BYTES_MAX = 4096
export const TABLE_BYTES_MAX = 4 * 1024 * 1024

export type NoTable =
  | { readonly kind: 'no-table' }
  /** Both sector sizes give a valid table: the family, or a person, must say which. */
  | { readonly kind: 'ambiguous' }
  | { readonly kind: 'too-large'; readonly entries: number; readonly entryBytes: number }

export type Decoded = { readonly table: Table; readonly problems: readonly TableProblem[] }

/** Asks for bytes from `from` to before `to`; what lies past the end is left out of the answer. */
export type ByteRange = { readonly from: number; readonly to: number }

/**
 * The decoder as a generator: it yields the ranges it needs, is sent the bytes, and returns the
 * result. `diskBytes` is the size of the device; `sectorBytes` its sector where that is known.
 */
export function* decodeTable(
  diskBytes: number,
  sectorBytes?: number,
): Generator<ByteRange, Result<Decoded, NoTable>, Uint8Array> {
  const sizes = sectorBytes === undefined ? SECTOR_SIZES : [sectorBytes]
  const found: Decoded[] = []
  let none: NoTable = { kind: 'no-table' }
  for (const size of sizes) {
    const decoded = yield* decodeAt(diskBytes, size)
    if (decoded.ok) found.push(decoded.value)
    else if (decoded.refusal.kind === 'too-large') none = decoded.refusal
  }
  const [first, second] = found
  if (first === undefined) return refuse(none)
  return second === undefined ? ok(first) : refuse({ kind: 'ambiguous' })
}

/** Bytes of a disk that were read, and where they begin. */
export type ReadRange = { readonly at: number; readonly bytes: Uint8Array }

/** Runs the decoder over ranges that were read; what it asks for beyond them is not there. */
export function decodeRanges(
  diskBytes: number,
  sectorBytes: number | undefined,
  ranges: readonly ReadRange[],
): Result<Decoded, NoTable> {
  const decoder = decodeTable(diskBytes, sectorBytes)
  let step = decoder.next()
  while (step.done !== true) {
    const { from, to } = step.value
    const range = ranges.find(({ at, bytes }) => at <= from && from < at + bytes.length)
    step = decoder.next(range?.bytes.subarray(from - range.at, to - range.at) ?? new Uint8Array())
  }
  return step.value
}

/** Runs the decoder over bytes that are all there. */
export const decodeBytes = (disk: Uint8Array, sectorBytes?: number): Result<Decoded, NoTable> =>
  decodeRanges(disk.length, sectorBytes, [{ at: 0, bytes: disk }])

type Header = {
  readonly own: number
  readonly other: number
  readonly firstUsable: number
  readonly lastUsable: number
  readonly diskId: string
  readonly array: number
  readonly entries: number
  readonly entryBytes: number
  readonly arrayCrc: number
}
type Copy = {
  readonly header: Header
  readonly partitions: readonly Partition[]
  /** What is wrong with single entries of it. */
  readonly odd: readonly TableProblem[]
}

function* decodeAt(
  diskBytes: number,
  size: number,
): Generator<ByteRange, Result<Decoded, NoTable>, Uint8Array> {
  const lastSector = Math.floor(diskBytes / size) - 1
  const record = yield { from: 0, to: size }
  const primary = yield* readCopy(size, 1)
  const alternate = primary.ok ? primary.value.header.other : lastSector
  const reachable = alternate <= lastSector
  const backup = reachable
    ? yield* readCopy(size, alternate)
    : refuse({ kind: 'no-table' as const })
  const copy = primary.ok ? primary.value : backup.ok ? backup.value : undefined
  if (copy === undefined) {
    /* What one copy lies about does not matter while the other holds. */
    const lying = [primary, backup].find((one) => !one.ok && one.refusal.kind === 'too-large')
    return lying !== undefined && !lying.ok ? lying : refuse({ kind: 'no-table' })
  }
  const table = tableOf(copy, size, lastSector + 1)
  const odd: TableProblem[] = [
    ...(record[510] === 0x55 && record[511] === 0xaa && record[450] === 0xee
      ? []
      : [{ kind: 'no-protective-record' as const }]),
    ...(reachable ? [] : [{ kind: 'backup-unreachable' as const }]),
    ...(primary.ok ? [] : [{ kind: 'primary-broken' as const }]),
    ...(reachable && !backup.ok ? [{ kind: 'backup-broken' as const }] : []),
    ...(primary.ok && backup.ok ? differing(primary.value, backup.value) : []),
  ]
  const taken = takenBy(copy.header, size, lastSector)
  return ok({ table, problems: [...odd, ...copy.odd, ...problemsOf(table, taken)] })
}

/** In what the two copies that both hold do not agree. */
function differing(a: Copy, b: Copy): TableProblem[] {
  const [one, other] = [a.header, b.header]
  const in_ = [
    ...(one.arrayCrc === other.arrayCrc ? [] : (['entries'] as const)),
    ...(one.diskId === other.diskId ? [] : (['diskId'] as const)),
    ...(one.firstUsable === other.firstUsable && one.lastUsable === other.lastUsable
      ? []
      : (['range'] as const)),
  ]
  return in_.map((what) => ({ kind: 'copies-differ', what }))
}

/** Sectors that record, headers and entries take at both ends, whatever the header calls usable. */
function takenBy({ entries, entryBytes }: Header, size: number, lastSector: number): Taken {
  const array = Math.ceil((entries * entryBytes) / size)
  return { before: 2 + array, after: lastSector - 1 - array }
}

function* readCopy(
  size: number,
  lba: number,
): Generator<ByteRange, Result<Copy, NoTable>, Uint8Array> {
  const sector = yield { from: lba * size, to: (lba + 1) * size }
  const header = readHeader(sector, size, lba)
  if (header === undefined) return refuse({ kind: 'no-table' })
  const { entries, entryBytes } = header
  const legal = entryBytes >= 128 && (entryBytes & (entryBytes - 1)) === 0
  if (
    entries > ENTRIES_MAX ||
    entryBytes > ENTRY_BYTES_MAX ||
    entries * entryBytes > TABLE_BYTES_MAX
  )
    return refuse({ kind: 'too-large', entries, entryBytes })
  if (!legal) return refuse({ kind: 'no-table' })
  const from = header.array * size
  const bytes = yield { from, to: from + entries * entryBytes }
  if (bytes.length < entries * entryBytes || crc32(bytes) !== header.arrayCrc)
    return refuse({ kind: 'no-table' })
  return ok({ header, ...readEntries(bytes, header) })
}

/** UEFI 2.10, table 5-5. Undefined when it does not hold: signature, sizes, checksum, own place. */
function readHeader(sector: Uint8Array, size: number, lba: number): Header | undefined {
  if (sector.length < size) return undefined
  const view = new DataView(sector.buffer, sector.byteOffset, sector.byteLength)
  const headerBytes = view.getUint32(12, true)
  if (view.getBigUint64(0, true) !== SIGNATURE) return undefined
  if (headerBytes < HEADER_BYTES || headerBytes > size) return undefined
  /* A copy: on a Node buffer slice would share the bytes. */
  const whole = new Uint8Array(sector.subarray(0, headerBytes))
  new DataView(whole.buffer).setUint32(16, 0, true)
  if (crc32(whole) !== view.getUint32(16, true)) return undefined
  const [own, other, firstUsable, lastUsable, array] = [24, 32, 40, 48, 72].map((at) =>
    whole64(view, at),
  )
  if (own !== lba || other === undefined || array === undefined) return undefined
  if (firstUsable === undefined || lastUsable === undefined) return undefined
  return {
    own,
    other,
    firstUsable,
    lastUsable,
    diskId: hexOf(sector.subarray(56, 72)),
    array,
    entries: view.getUint32(80, true),
    entryBytes: view.getUint32(84, true),
    arrayCrc: view.getUint32(88, true),
  }
}

/** A 64-bit place as a number; undefined above 2^53, where no device is. */
function whole64(view: DataView, at: number): number | undefined {
  const value = Number(view.getBigUint64(at, true))
  return Number.isSafeInteger(value) ? value : undefined
}

/**
 * UEFI 2.10, table 5-6. An entry of zero type is unused; names end at NUL. One that ends before it
 * begins is listed without sectors; one past 2^53, where no device is, is named and not listed.
 */
function readEntries(bytes: Uint8Array, header: Header): Pick<Copy, 'partitions' | 'odd'> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const partitions: Partition[] = []
  const odd: TableProblem[] = []
  for (let index = 0; index < header.entries; index += 1) {
    const at = index * header.entryBytes
    const type = hexOf(bytes.subarray(at, at + 16))
    if (/^0+$/.test(type)) continue
    const name = nameAt(view, at + 56)
    const [start, end] = [whole64(view, at + 32), whole64(view, at + 40)]
    if (start === undefined || end === undefined) {
      odd.push({ kind: 'too-far', name })
      continue
    }
    if (end < start) odd.push({ kind: 'ends-before-start', name })
    partitions.push({
      name,
      start,
      sectors: Math.max(0, end - start + 1),
      type,
      id: hexOf(bytes.subarray(at + 16, at + 32)),
      attributes: view.getBigUint64(at + 48, true),
    })
  }
  return { partitions, odd }
}

function nameAt(view: DataView, at: number): string {
  const units = Array.from({ length: NAME_UNITS }, (_, unit) => view.getUint16(at + unit * 2, true))
  const end = units.indexOf(0)
  return String.fromCharCode(...(end < 0 ? units : units.slice(0, end)))
}

const hexOf = (bytes: Uint8Array): string =>
  Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('')

function tableOf({ header, partitions }: Copy, sectorBytes: number, diskSectors: number): Table {
  const { diskId, firstUsable, lastUsable } = header
  return { sectorBytes, diskId, diskSectors, firstUsable, lastUsable, partitions }
}
