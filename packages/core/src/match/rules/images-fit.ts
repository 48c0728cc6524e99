/**
 * No image is larger than its partition, in the device's own table or, until that is read, in the one that its
 * family gives a device of this storage.
 */
import { placesOf } from '../../family/layout.ts'
import type { Table } from '../../layout/table.ts'
import { rule } from '../rule.ts'
import { TABLE_FACTS, tableFor } from '../tables.ts'

const kept = new WeakMap<Table, ReadonlyMap<string, number>>()

/** Bytes of a partition; one that is not there has room for anything, and another rule says so. */
function roomOf(table: Table, name: string): number {
  const rooms =
    kept.get(table) ??
    new Map(table.partitions.map((one) => [one.name, one.sectors * table.sectorBytes]))
  kept.set(table, rooms)
  return rooms.get(name) ?? Infinity
}

export const imagesFit = rule({
  id: 'layout.images',
  overruled: 'nobody',
  sees: TABLE_FACTS,
  alike: ({ scale, images }) =>
    [scale, ...images.map(({ role, partition, size }) => `${role} ${partition} ${size}`)].join(),
  reads: ['table'],
  says: { fits: ['fits', 'images'], large: ['does-not-fit', 'partition', 'bytes'] },
  check: (about, at) => {
    const table = at.table ?? tableFor(at, about)
    if (table === undefined) return undefined
    const { images, scale } = at.shelved.manifest
    for (const image of images) {
      const rooms = placesOf(at.family, image).map(({ name }) => roomOf(table, name))
      const least = Math.min(...rooms)
      if (image.size > least) {
        const facts = { partition: image.partition, bytes: (image.size - least) * scale }
        return { say: 'large', facts }
      }
    }
    return { say: 'fits', facts: { images: images.length } }
  },
})
