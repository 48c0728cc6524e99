/**
 * Nothing of the package goes to calibration, identity or the customer's data: by what its parts are, and, where the device's
 * own table was read, by where they lie.
 */
import { placesOf } from '../../family/layout.ts'
import { OWN_ROLES, isNeverWritten } from '../../family/never.ts'
import type { Partition } from '../../layout/table.ts'
import { endOf } from '../../layout/table.ts'
import type { Case, Ground } from '../rule.ts'
import { rule } from '../rule.ts'

export const neverWritten = rule({
  id: 'layout.never-written',
  overruled: 'nobody',
  reads: ['table'],
  says: { touched: ['does-not-fit', 'partition'], over: ['does-not-fit', 'partition', 'image'] },
  concerns: (at) => touched(at) !== undefined || over(at) !== undefined,
  check: (_, at) => {
    const partition = touched(at)
    if (partition !== undefined) return { say: 'touched', facts: { partition } }
    const facts = over(at)
    return facts === undefined ? undefined : { say: 'over', facts }
  },
})

function touched({ family, shelved: { manifest } }: Ground): string | undefined {
  const kept = family.partitions.find(
    ({ name, role }) =>
      isNeverWritten(family, role) &&
      manifest.images.some((image) => image.partition === name || image.role === role),
  )
  /* A family that has no such partition has it somewhere all the same. */
  return kept?.name ?? manifest.images.find(({ role }) => OWN_ROLES.includes(role))?.partition
}

/** An image whose partition lies over one of the device's own, by the table that was read. */
function over({
  family,
  shelved: { manifest },
  table,
}: Ground & Pick<Case, 'table'>):
  { readonly partition: string; readonly image: string } | undefined {
  if (table === undefined) return undefined
  const own = family.partitions.filter(({ role }) => OWN_ROLES.includes(role))
  const kept = table.partitions.filter(({ name }) => own.some((one) => one.name === name))
  const beside = table.partitions.flatMap((one) => {
    const under = kept.find((mine) => mine.name !== one.name && meet(mine, one))
    return under === undefined ? [] : [{ partition: under.name, image: one.name }]
  })
  if (beside.length === 0) return undefined
  const names = manifest.images.flatMap((image) => placesOf(family, image).map(({ name }) => name))
  return beside.find(({ image }) => names.includes(image))
}

const meet = (one: Partition, other: Partition): boolean =>
  one.start <= endOf(other) && other.start <= endOf(one)
