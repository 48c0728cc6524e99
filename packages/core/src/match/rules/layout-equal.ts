/** The device's table is the one its storage size should have; repartitioning is not foreseen. */
import type { LaidOut } from '../../family/layout.ts'
import { familyTable } from '../../family/layout.ts'
import type { Difference, Table } from '../../layout/table.ts'
import { compareTables } from '../../layout/table.ts'
import type { Family } from '../../family/profile.ts'
import type { Rule } from '../rule.ts'

export const layoutEqual: Rule = {
  id: 'layout.table',
  needs: ['storageGb', 'model', 'board'],
  final: false,
  codes: ['fit.layout.table.equal', 'fit.layout.table.differs'],
  check: ({ storageGb, model, board }, at) => {
    const { table, family, shelved } = at
    if (table === undefined || storageGb === undefined) return undefined
    const about = { storageGb: Number(storageGb), model: String(model), board: String(board) }
    const first = firstDifference(family, table, about, shelved.manifest.scale)
    if (first === undefined) return { verdict: 'fits', code: 'fit.layout.table.equal' }
    const facts = { partition: first.name, how: first.how }
    return { verdict: 'does-not-fit', code: 'fit.layout.table.differs', facts }
  },
}

/** Comparisons of one device's table, kept: a whole shelf is judged on it. */
type Compared = Map<string, Difference | undefined>
const compared = new WeakMap<Table, WeakMap<Family, Compared>>()

function firstDifference(
  family: Family,
  table: Table,
  about: LaidOut,
  scale: number,
): Difference | undefined {
  const ofTable = compared.get(table) ?? new WeakMap<Family, Compared>()
  compared.set(table, ofTable)
  const known: Compared = ofTable.get(family) ?? new Map()
  ofTable.set(family, known)
  const key = `${about.model ?? ''} ${about.board ?? ''} ${about.storageGb} ${scale}`
  if (known.has(key)) return known.get(key)
  const disk = table.diskSectors * table.sectorBytes
  const [first] = compareTables(table, familyTable(family, about, scale, disk))
  known.set(key, first)
  return first
}
