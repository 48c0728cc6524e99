/** A permit is used once: what the book knows to be used, the device refuses. */
import { permitKindOf } from '../permit.ts'
import { rule } from '../rule.ts'

export const permitSpent = rule({
  id: 'permit.spent',
  overruled: 'nobody',
  reads: ['permit', 'history'],
  says: { fits: ['fits', 'id'], spent: ['does-not-fit', 'id'] },
  concerns: ({ shelved, permit }) =>
    permitKindOf(shelved.manifest) !== undefined && permit !== undefined,
  check: (_, { permit, history }) => {
    if (permit === undefined) return undefined
    const facts = { id: permit.id }
    return history.permitsUsed.includes(permit.id)
      ? { say: 'spent', facts, remedy: { kind: 'permit' } }
      : { say: 'fits', facts }
  },
})
