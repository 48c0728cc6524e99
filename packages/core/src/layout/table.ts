/**
 * A partition table as this product speaks of it: names, places, sizes and types, in device order.
 * Reads nothing; gives the shape and the text that is the same for equal ones. Leaves out bytes, which are `decode` and
 * `encode`, and what a layout asks of a table, which is `wanted`.
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
    const toTheEnd = index === length - 1 && isToTheEnd(table, one)
    return `${oneLine(one.name)} ${one.start} ${toTheEnd ? 'end' : one.sectors} ${one.type}`
  })
  return [String(table.sectorBytes), ...lines].join('\n')
}

/** A name is one line of the text, whatever its sixteen-bit units are. */
const oneLine = (name: string): string => name.replace(/[\n\r]/g, '\ufffd')

/** How a table differs from another, by the partition's name. */
export type Difference = {
  readonly name: string
  readonly how: 'missing' | 'added' | 'moved' | 'resized' | 'retyped'
}

/** Partition tools leave up to this much free at the end: they align ends as they align beginnings. */
const SLACK_BYTES = 1024 * 1024

/** Whether a partition takes all that is left of its storage, but for what an aligned end leaves. */
export const isToTheEnd = (table: Table, partition: Partition): boolean =>
  (table.lastUsable - endOf(partition)) * table.sectorBytes < SLACK_BYTES

const inOrder = (table: Table): Partition[] =>
  [...table.partitions].sort((a, b) => a.start - b.start)
