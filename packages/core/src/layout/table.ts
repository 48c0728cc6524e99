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

/** The last sector of a partition. */
export const endOf = (partition: Partition): number => partition.start + partition.sectors - 1

/**
 * A table as a text that is the same for equal ones: every partition in device order with its start, size and type;
 * of the last one that runs to the end of its device no size.
 */
export function tableText(table: Table): string {
  const lines = inOrder(table).map((one, index, { length }) => {
    const toTheEnd = index === length - 1 && endOf(one) === table.lastUsable
    return `${one.name} ${one.start} ${toTheEnd ? 'end' : one.sectors} ${one.type}`
  })
  return [String(table.sectorBytes), ...lines].join('\n')
}

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
  const [hereBy, wantedBy] = [byName(before), byName(after)]
  const missing = [...wantedBy.keys()]
    .filter((key) => !hereBy.has(key))
    .map((key) => ({ name: nameIn(wantedBy, key), how: 'missing' as const }))
  const added = [...hereBy.keys()]
    .filter((key) => !wantedBy.has(key))
    .map((key) => ({ name: nameIn(hereBy, key), how: 'added' as const }))
  const changed = [...wantedBy].flatMap(([key, one], index) => {
    const other = hereBy.get(key)
    if (other === undefined) return []
    const last = index === after.length - 1 && other === before.at(-1)
    const how = last ? lastDiffers(here, other, wanted, one) : differs(other, one)
    return how === undefined ? [] : [{ name: one.name, how }]
  })
  return [...missing, ...added, ...changed]
}

/** By name and, where a name comes again, how often it came: a twin is one more, never the same. */
function byName(partitions: readonly Partition[]): ReadonlyMap<string, Partition> {
  const came = new Map<string, number>()
  return new Map(
    partitions.map((one) => {
      const before = came.get(one.name) ?? 0
      came.set(one.name, before + 1)
      return [`${before} ${one.name}`, one]
    }),
  )
}

const nameIn = (by: ReadonlyMap<string, Partition>, key: string): string => by.get(key)?.name ?? ''

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
