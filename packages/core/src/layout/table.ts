/**
 * A partition table as this product speaks of it: names, places, sizes and types, in device order.
 * Reads nothing; gives the shape, what is odd about one, and when two are equal. Leaves out bytes,
 * which are `decode` and `encode`.
 */

/** One partition. `start` and `sectors` count sectors of the table's size. */
export type Partition = {
  readonly name: string
  readonly start: number
  readonly sectors: number
  /** Partition type and own id as 32 lower-case hex digits in the order of their bytes. */
  readonly type: string
  readonly id: string
  readonly attributes: bigint
}

export type Table = {
  readonly sectorBytes: number
  readonly diskId: string
  readonly diskSectors: number
  readonly firstUsable: number
  readonly lastUsable: number
  readonly partitions: readonly Partition[]
}

/** What is odd about a table; none of it stops the listing. */
export type TableProblem =
  | { readonly kind: 'overlap'; readonly names: readonly [string, string] }
  | { readonly kind: 'outside' | 'unaligned'; readonly name: string }
  | { readonly kind: 'no-protective-record' | 'backup-unreachable' | 'backup-broken' }
  | { readonly kind: 'copies-differ' }

/** Partitions begin at a multiple of this many bytes on a well-made device. */
const ALIGN_BYTES = 4096

/** Problems that the list of partitions shows by itself. */
export function problemsOf(table: Table): TableProblem[] {
  const sorted = [...table.partitions].sort((a, b) => a.start - b.start)
  const overlaps = sorted.flatMap((one, index) => {
    const next = sorted[index + 1]
    return next !== undefined && one.start + one.sectors > next.start
      ? [{ kind: 'overlap' as const, names: [one.name, next.name] as const }]
      : []
  })
  const outside = sorted
    .filter((one) => one.start < table.firstUsable || endOf(one) > table.lastUsable)
    .map(({ name }) => ({ kind: 'outside' as const, name }))
  const unaligned = sorted
    .filter((one) => (one.start * table.sectorBytes) % ALIGN_BYTES !== 0)
    .map(({ name }) => ({ kind: 'unaligned' as const, name }))
  return [...overlaps, ...outside, ...unaligned]
}

/** The last sector of a partition. */
export const endOf = (partition: Partition): number => partition.start + partition.sectors - 1

/** How two tables differ, by the partition's name; empty: equal. */
export type Difference = {
  readonly name: string
  readonly how: 'missing' | 'added' | 'moved' | 'resized' | 'retyped'
}

/**
 * Equal when every partition but the last agrees in name, start, size and type, and the last has the
 * same start and name and runs to the end of its own device.
 */
export function compareTables(here: Table, wanted: Table): Difference[] {
  const before = inOrder(here)
  const after = inOrder(wanted)
  const missing = after
    .filter((one) => !before.some((other) => other.name === one.name))
    .map(({ name }) => ({ name, how: 'missing' as const }))
  const added = before
    .filter((one) => !after.some((other) => other.name === one.name))
    .map(({ name }) => ({ name, how: 'added' as const }))
  const changed = after.flatMap((one, index) => {
    const other = before.find(({ name }) => name === one.name)
    if (other === undefined) return []
    const last = index === after.length - 1 && other === before.at(-1)
    const how = last ? lastDiffers(here, other, wanted, one) : differs(other, one)
    return how === undefined ? [] : [{ name: one.name, how }]
  })
  return [...missing, ...added, ...changed]
}

const inOrder = (table: Table): Partition[] =>
  [...table.partitions].sort((a, b) => a.start - b.start)

function differs(here: Partition, wanted: Partition): Difference['how'] | undefined {
  if (here.start !== wanted.start) return 'moved'
  if (here.sectors !== wanted.sectors) return 'resized'
  return here.type === wanted.type ? undefined : 'retyped'
}

function lastDiffers(
  hereTable: Table,
  here: Partition,
  wantedTable: Table,
  wanted: Partition,
): Difference['how'] | undefined {
  if (here.start !== wanted.start) return 'moved'
  const bothToTheEnd =
    endOf(here) === hereTable.lastUsable && endOf(wanted) === wantedTable.lastUsable
  return bothToTheEnd ? undefined : differs(here, wanted)
}
