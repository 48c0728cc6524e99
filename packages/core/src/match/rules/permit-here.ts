/** Its maker's service software goes on where its maker permits it: without a permit it never starts. */
import { rule } from '../rule.ts'

export const permitHere = rule({
  id: 'permit.here',
  overruled: 'nobody',
  reads: ['permit'],
  says: { fits: ['fits', 'id'], none: ['fits-if'] },
  concerns: ({ shelved }) => shelved.manifest.kind === 'service',
  check: (_, { permit }) =>
    permit === undefined
      ? { say: 'none', facts: {}, remedy: { kind: 'permit' } }
      : { say: 'fits', facts: { id: permit.id } },
})
