/** The device's table is the one its storage size should have; repartitioning is not foreseen. */
import { familyTable } from '../../family/layout.ts'
import { compareTables } from '../../layout/table.ts'
import type { Rule } from '../rule.ts'

export const layoutEqual: Rule = {
  id: 'layout.table',
  needs: ['storageGb'],
  final: false,
  codes: ['fit.layout.table.equal', 'fit.layout.table.differs'],
  check: ({ storageGb }, at) => {
    const { table, family, shelved } = at
    if (table === undefined || storageGb === undefined) return undefined
    const disk = table.diskSectors * table.sectorBytes
    const wanted = familyTable(family, Number(storageGb), shelved.manifest.scale, disk)
    const [first] = compareTables(table, wanted)
    if (first === undefined) return { verdict: 'fits', code: 'fit.layout.table.equal' }
    const facts = { partition: first.name, how: first.how }
    return { verdict: 'does-not-fit', code: 'fit.layout.table.differs', facts }
  },
}
