/** A permit runs out on its day. */
import { rule } from '../rule.ts'

export const permitDay = rule({
  id: 'permit.day',
  overruled: 'nobody',
  asks: ['today'],
  reads: ['permit'],
  says: { fits: ['fits', 'until'], over: ['does-not-fit', 'until'] },
  concerns: ({ shelved, permit }) => shelved.manifest.kind === 'service' && permit !== undefined,
  check: (_, { permit, today }) => {
    if (permit === undefined) return undefined
    const facts = { until: permit.until }
    return permit.until < today
      ? { say: 'over', facts, remedy: { kind: 'permit' } }
      : { say: 'fits', facts }
  },
})
