/**
 * The device's table is the one that its storage size should have, and that its package was made for; repartitioning is not foreseen. One that nobody
 * read is asked for at the meeting, before anything is written, where a mode that writes shows it.
 */
import { modeTaking } from '../../family/modes.ts'
import { rule } from '../rule.ts'
import { TABLE_FACTS, differsFromPackage, firstDifference } from '../tables.ts'

export const layoutEqual = rule({
  id: 'layout.table',
  overruled: 'nobody',
  needs: TABLE_FACTS,
  alike: ({ scale }) => `${scale}`,
  reads: ['table'],
  says: {
    equal: ['fits'],
    differs: ['does-not-fit', 'partition', 'how'],
    package: ['does-not-fit', 'partition', 'how'],
    met: ['fits-if'],
    unread: ['cannot-tell'],
  },
  check: (about, at) => {
    if (at.table === undefined)
      return modeTaking(at.family, 'table') === undefined
        ? { say: 'unread', facts: {}, remedy: { kind: 'look', what: 'table' } }
        : { say: 'met', facts: {}, remedy: { kind: 'look', what: 'table' } }
    const first = firstDifference(at, at.table, about)
    if (first !== undefined)
      return { say: 'differs', facts: { partition: first.name, how: first.how } }
    const other = differsFromPackage(at.shelved.manifest, at.table)
    return other === undefined
      ? { say: 'equal', facts: {} }
      : { say: 'package', facts: { partition: other.name, how: other.how } }
  },
})
