/**
 * The table that a family gives a device, kept: a whole shelf is judged on one. Reads a family and what is known
 * of the device; gives the table, and the first difference of a read one from it.
 */
import type { FactValue } from '../device/identity.ts'
import type { LaidOut } from '../family/layout.ts'
import { assumedTable, familyTable, mibOf, partitionsOf } from '../family/layout.ts'
import type { Family } from '../family/profile.ts'
import type { Difference, Table } from '../layout/table.ts'
import { compareTables } from '../layout/table.ts'
import type { Ground } from './rule.ts'

/** What a layout goes by. */
export const TABLE_FACTS = ['storageGb', 'model', 'board'] as const
export type About = Readonly<Partial<Record<(typeof TABLE_FACTS)[number], FactValue>>>

const made = new WeakMap<Family, Map<string, Table>>()
const compared = new WeakMap<Table, WeakMap<Table, { readonly first: Difference | undefined }>>()

/**
 * The table of such a device at a package's scale, on a flash of so many bytes, or of any with room for it.
 * Undefined while its storage is not known, or where the family names no sizes for it.
 */
export function tableFor(
  { family, shelved }: Ground,
  { storageGb, model, board }: About,
  diskBytes?: number,
): Table | undefined {
  if (storageGb === undefined) return undefined
  const about = {
    storageGb: Number(storageGb),
    ...(model === undefined ? {} : { model: String(model) }),
    ...(board === undefined ? {} : { board: String(board) }),
  }
  const { scale } = shelved.manifest
  const known = made.get(family) ?? new Map<string, Table>()
  made.set(family, known)
  const key = `${model ?? ''} ${board ?? ''} ${storageGb} ${scale} ${diskBytes ?? ''}`
  const kept = known.get(key)
  if (kept !== undefined || !isSized(family, about)) return kept
  const table =
    diskBytes === undefined
      ? assumedTable(family, about, scale)
      : familyTable(family, about, scale, diskBytes)
  known.set(key, table)
  return table
}

/** Whether the family says how large every part of such a device is. */
const isSized = (family: Family, about: LaidOut): boolean =>
  family.partitions.every(
    ({ name, mib }) =>
      mib === 'rest' ||
      mibOf(family, name, about) !== undefined ||
      !partitionsOf(family, about).some((one) => one.name === name),
  )

/** The first difference of a table that was read from the one that the family gives such a device. */
export function firstDifference(
  ground: Ground,
  table: Table,
  about: About,
): Difference | undefined {
  const own = tableFor(ground, about, table.diskSectors * table.sectorBytes)
  if (own === undefined) return undefined
  const ofTable = compared.get(table) ?? new WeakMap<Table, { first: Difference | undefined }>()
  compared.set(table, ofTable)
  const known = ofTable.get(own) ?? { first: compareTables(table, own)[0] }
  ofTable.set(own, known)
  return known.first
}
