/**
 * Nothing that is never touched is erased, but what any reset takes of the customer's; nor what is kept once, without which its
 * device never starts again: that is written over in one go.
 */
import { isNeverErased } from '../../family/never.ts'
import type { Ground } from '../rule.ts'
import { rule } from '../rule.ts'

export const neverErased = rule({
  id: 'layout.never-erased',
  overruled: 'nobody',
  says: { erased: ['does-not-fit', 'partition'], once: ['does-not-fit', 'partition'] },
  concerns: (at) => erased(at) !== undefined,
  check: (_, at) => {
    const part = erased(at)
    if (part === undefined) return undefined
    const facts = { partition: part.name }
    return { say: isNeverErased(at.family, part.role) ? 'erased' : 'once', facts }
  },
})

const erased = ({ family, shelved }: Ground) =>
  family.partitions.find(
    ({ name, role }) =>
      (isNeverErased(family, role) || family.keptOnce.includes(role)) &&
      shelved.manifest.effects.erases.includes(name),
  )
