/** A permit holds from its first day, where its file says one, to its last. */
import { permitKindOf } from '../permit.ts'
import { rule } from '../rule.ts'

export const permitDay = rule({
  id: 'permit.day',
  overruled: 'nobody',
  asks: ['today'],
  reads: ['permit'],
  says: {
    fits: ['fits', 'until'],
    over: ['does-not-fit', 'until'],
    early: ['does-not-fit', 'from'],
  },
  concerns: ({ shelved, permit }) =>
    permitKindOf(shelved.manifest) !== undefined && permit !== undefined,
  check: (_, { permit, today }) => {
    if (permit === undefined) return undefined
    const [{ until }, from = ''] = [permit, permit.signed?.from]
    const remedy = { kind: 'permit' } as const
    if (until < today) return { say: 'over', facts: { until }, remedy }
    return today < from
      ? { say: 'early', facts: { from }, remedy }
      : { say: 'fits', facts: { until } }
  },
})
