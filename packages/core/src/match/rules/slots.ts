/** All images of a package go to one slot: halves of two are no system. */
import type { Slot } from '../../terms/device.ts'
import type { Ground } from '../rule.ts'
import { rule } from '../rule.ts'

export const slots = rule({
  id: 'layout.slots',
  overruled: 'nobody',
  says: { one: ['fits'], mixed: ['does-not-fit', 'partitions'] },
  concerns: (at) => namesSlots(at).length > 0,
  check: (_, at) => {
    const named = namesSlots(at)
    return new Set(named.map(({ slot }) => slot)).size > 1
      ? { say: 'mixed', facts: { partitions: named.map(({ name }) => name).join(', ') } }
      : { say: 'one', facts: {} }
  },
})

/** Partitions that its images name and that are of one slot alone. */
const namesSlots = ({
  family,
  shelved,
}: Ground): readonly { readonly name: string; readonly slot: Slot }[] =>
  shelved.manifest.images.flatMap(({ partition }) => {
    const place = family.partitions.find(({ name }) => name === partition)
    return place?.slot === undefined ? [] : [{ name: partition, slot: place.slot }]
  })
