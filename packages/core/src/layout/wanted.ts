/**
 * A layout as a family or a package gives it, and how a device's own table stands to it. Tables are made by many hands:
 * their first sectors, gaps, alignment and types are the maker's, and what is not given is not compared. Reads a table and
 * a layout, or two tables as texts; gives what differs, partition by partition.
 */
import type { Difference, Partition, Table } from './table.ts'
import { isToTheEnd } from './table.ts'

/** A partition as it is wanted; undefined: not given. The last one's bytes are not given where it takes the rest. */
export type WantedPartition = {
  readonly name: string
  readonly bytes?: number | undefined
  /** Where it begins, in bytes from the start of the storage. */
  readonly startBytes?: number | undefined
  /** Its type as 32 lower-case hex digits in the order of its bytes. */
  readonly type?: string | undefined
}
export type Layout = {
  readonly partitions: readonly WantedPartition[]
  /** Every partition begins at a multiple of this, in bytes. */
  readonly alignBytes?: number | undefined
}

/**
 * How a table differs from a layout: by order, name and size, and by start, type and alignment where they are given; the
 * last partition runs to the end where its size is not given. Empty: it is equal.
 */
export function compareLayout(here: Table, { partitions, alignBytes }: Layout): Difference[] {
  const before = keyed([...here.partitions].sort((a, b) => a.start - b.start))
  const after = keyed(partitions)
  const [hereBy, wantedBy] = [new Map(before), new Map(after)]
  const missing = after.flatMap(([key, { name }]) =>
    hereBy.has(key) ? [] : [{ name, how: 'missing' as const }],
  )
  const added = before.flatMap(([key, { name }]) =>
    wantedBy.has(key) ? [] : [{ name, how: 'added' as const }],
  )
  const orderHere = before.filter(([key]) => wantedBy.has(key)).map(([key]) => key)
  const orderThere = after.filter(([key]) => hereBy.has(key)).map(([key]) => key)
  const changed = orderThere.flatMap((key, at): Difference[] => {
    const [one, wanted] = [hereBy.get(key), wantedBy.get(key)]
    if (one === undefined || wanted === undefined) return []
    const how = orderHere[at] === key ? differs(here, one, wanted, alignBytes) : 'moved'
    return how === undefined ? [] : [{ name: wanted.name, how }]
  })
  return [...missing, ...added, ...changed]
}

function differs(
  table: Table,
  one: Partition,
  { bytes, startBytes, type }: WantedPartition,
  alignBytes: number | undefined,
): Difference['how'] | undefined {
  const begins = one.start * table.sectorBytes
  if (startBytes !== undefined && begins !== startBytes) return 'moved'
  if (alignBytes !== undefined && begins % alignBytes !== 0) return 'moved'
  const isLast = table.partitions.every(({ start }) => start <= one.start)
  if (bytes === undefined ? isLast && !isToTheEnd(table, one) : !isSized(table, one, bytes))
    return 'resized'
  return type === undefined || type === one.type ? undefined : 'retyped'
}

/** Whole sectors of so many bytes: a size that is no multiple of a sector takes one more. */
const isSized = ({ sectorBytes }: Table, { sectors }: Partition, bytes: number): boolean =>
  sectors === Math.ceil(bytes / sectorBytes)

/** Each by its name and, where a name comes again, how often it came: a twin is one more, never the same. */
function keyed<One extends { readonly name: string }>(
  partitions: readonly One[],
): readonly (readonly [key: string, one: One])[] {
  const came = new Map<string, number>()
  return partitions.map((one) => {
    const before = came.get(one.name) ?? 0
    came.set(one.name, before + 1)
    return [`${before} ${one.name}`, one]
  })
}

/** Stands in a table's text for what nobody gave. */
export const ANY = '*'

/**
 * A layout as a table's text (`tableText`), with `*` for what is not given: what a meeting asks for where nobody read the
 * table before. `sectorBytes`: of the storage it is to be on.
 */
export function layoutText({ partitions }: Layout, sectorBytes: number): string {
  const lines = partitions.map(({ name, bytes, startBytes, type }, at) => {
    const sectors = bytes === undefined ? undefined : Math.ceil(bytes / sectorBytes)
    const rest = at === partitions.length - 1 ? 'end' : ANY
    const start = startBytes === undefined ? ANY : startBytes / sectorBytes
    return `${name} ${start} ${sectors ?? rest} ${type ?? ANY}`
  })
  return [String(sectorBytes), ...lines].join('\n')
}

type Line = readonly [name: string, start: string, sectors: string, type: string]
const HOWS = ['missing', 'moved', 'resized', 'retyped'] as const

/** How a table that was read differs from the one that is wanted, both as texts. Empty: they are equal. */
export function textDifferences(here: string, wanted: string): Difference[] {
  const [[hereSector, ...before], [wantedSector, ...after]] = [here.split('\n'), wanted.split('\n')]
  const [mine, theirs] = [before.map(lineOf), after.map(lineOf)]
  const differ = Array.from({ length: Math.max(mine.length, theirs.length) }, (_, at) =>
    lineDiffers(mine[at], theirs[at]),
  ).filter((one) => one !== undefined)
  if (hereSector === wantedSector || differ.length > 0) return differ
  return [{ name: mine[0]?.[0] ?? '', how: 'resized' }]
}

function lineDiffers(here: Line | undefined, wanted: Line | undefined): Difference | undefined {
  if (wanted === undefined) return here && { name: here[0], how: 'added' }
  if (here === undefined) return { name: wanted[0], how: 'missing' }
  const other = wanted.findIndex(
    (part, at) => part !== ANY && here[at] !== ANY && part !== here[at],
  )
  const how = HOWS[other]
  return how === undefined ? undefined : { name: wanted[0], how }
}

/** A name may hold spaces: the last three words are start, size and type. */
function lineOf(line: string): Line {
  const words = line.split(' ')
  const [start = '', sectors = '', type = ''] = words.slice(-3)
  return [words.slice(0, -3).join(' '), start, sectors, type]
}
