/**
 * Every image has its partition: in the device's own table, or, until that is read, in the one that its family
 * gives a device of this storage.
 */
import { placesOf } from '../../family/layout.ts'
import type { Table } from '../../layout/table.ts'
import { rule } from '../rule.ts'
import { TABLE_FACTS, tableFor } from '../tables.ts'

const kept = new WeakMap<Table, ReadonlySet<string>>()

function namesIn(table: Table): ReadonlySet<string> {
  const names = kept.get(table) ?? new Set(table.partitions.map(({ name }) => name))
  kept.set(table, names)
  return names
}

export const present = rule({
  id: 'layout.present',
  overruled: 'nobody',
  sees: TABLE_FACTS,
  alike: ({ scale, images }) =>
    [scale, ...images.map(({ role, partition }) => `${role} ${partition}`)].join(),
  reads: ['table'],
  says: { fits: ['fits', 'images'], absent: ['does-not-fit', 'partition'] },
  check: (about, at) => {
    const table = at.table ?? tableFor(at, about)
    if (table === undefined) return undefined
    const names = namesIn(table)
    const { images } = at.shelved.manifest
    const lost = images.find(
      (image) => !placesOf(at.family, image).some(({ name }) => names.has(name)),
    )
    return lost === undefined
      ? { say: 'fits', facts: { images: images.length } }
      : { say: 'absent', facts: { partition: lost.partition } }
  },
})
