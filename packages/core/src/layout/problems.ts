/**
 * What is odd about a partition table. Reads a table and the sectors its own structures take; gives
 * problems, none of which stops the listing. A lying usable range hides nothing: places are held against
 * the device itself too.
 */
import type { Partition, Table } from './table.ts'
import { endOf } from './table.ts'

export type TableProblem =
  | { readonly kind: 'overlap' | 'twin-names'; readonly names: readonly [string, string] }
  | {
      readonly kind:
        'outside' | 'unaligned' | 'over-table' | 'past-disk' | 'ends-before-start' | 'too-far'
      readonly name: string
    }
  | {
      readonly kind:
        | 'no-protective-record'
        | 'backup-unreachable'
        | 'primary-broken'
        | 'backup-broken'
        | 'usable-range'
    }
  | { readonly kind: 'copies-differ'; readonly what: 'entries' | 'diskId' | 'range' }
export const TABLE_PROBLEMS = [
  'overlap',
  'twin-names',
  'outside',
  'unaligned',
  'over-table',
  'past-disk',
  'ends-before-start',
  'too-far',
  'no-protective-record',
  'backup-unreachable',
  'primary-broken',
  'backup-broken',
  'usable-range',
  'copies-differ',
] as const satisfies readonly TableProblem['kind'][]

/** Sectors of the disk that the table itself takes: before this one, and after that one. */
export type Taken = { readonly before: number; readonly after: number }

/** Partitions begin at a multiple of this many bytes on a well-made device. */
const ALIGN_BYTES = 4096
/** Pairs that are told; a table made to confuse could have half a million. */
const PAIRS_MOST = 64

/** Problems that the list of partitions shows by itself. */
export function problemsOf(table: Table, taken: Taken): TableProblem[] {
  const { partitions, firstUsable, lastUsable, diskSectors, sectorBytes } = table
  const sorted = [...partitions].sort((a, b) => a.start - b.start)
  const named = (kind: 'outside' | 'unaligned' | 'over-table' | 'past-disk', odd: Odd) =>
    sorted.filter(odd).map(({ name }) => ({ kind, name }))
  const lies = firstUsable > lastUsable || firstUsable < taken.before || lastUsable > taken.after
  return [
    ...(lies ? [{ kind: 'usable-range' as const }] : []),
    ...overlapsIn(sorted),
    ...twinsIn(sorted),
    ...named('outside', (one) => one.start < firstUsable || endOf(one) > lastUsable),
    ...named('over-table', (one) => isOver(one, taken, diskSectors)),
    ...named('past-disk', (one) => endOf(one) >= diskSectors),
    ...named('unaligned', (one) => (one.start * sectorBytes) % ALIGN_BYTES !== 0),
  ]
}

type Odd = (partition: Partition) => boolean

const isOver = (one: Partition, { before, after }: Taken, diskSectors: number): boolean =>
  one.start < before || (endOf(one) > after && one.start < diskSectors)

/** Any two that share a sector, not only neighbours: one may lie over several. */
function overlapsIn(sorted: readonly Partition[]): TableProblem[] {
  const pairs: TableProblem[] = []
  for (const [index, one] of sorted.entries())
    for (let next = index + 1; next < sorted.length; next += 1) {
      const other = sorted[next]
      if (other === undefined || other.start > endOf(one)) break
      if (other.sectors === 0) continue
      if (pairs.length >= PAIRS_MOST) return pairs
      pairs.push({ kind: 'overlap', names: [one.name, other.name] })
    }
  return pairs
}

/** The same name twice: whoever writes by name may meet either. */
function twinsIn(sorted: readonly Partition[]): TableProblem[] {
  const seen = new Set<string>()
  return sorted
    .filter(({ name }) => seen.has(name) || !seen.add(name))
    .slice(0, PAIRS_MOST)
    .map(({ name }) => ({ kind: 'twin-names', names: [name, name] }))
}
