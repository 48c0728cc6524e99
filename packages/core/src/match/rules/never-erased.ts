/** Nothing that is never touched is erased, but what any reset takes of the customer's. */
import type { Ground } from '../rule.ts'
import { rule } from '../rule.ts'

export const neverErased = rule({
  id: 'layout.never-erased',
  overruled: 'nobody',
  says: { erased: ['does-not-fit', 'partition'] },
  concerns: (at) => erased(at) !== undefined,
  check: (_, at) => {
    const partition = erased(at)
    return partition === undefined ? undefined : { say: 'erased', facts: { partition } }
  },
})

const erased = ({ family, shelved }: Ground): string | undefined =>
  family.partitions.find(
    ({ name, role }) =>
      family.never.includes(role) &&
      !family.wipe.includes(role) &&
      shelved.manifest.effects.erases.includes(name),
  )?.name
