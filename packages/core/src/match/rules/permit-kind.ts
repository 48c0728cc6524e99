/** A permit is of one kind: what is granted for service permits nothing else. */
import { permitKindOf } from '../permit.ts'
import { rule } from '../rule.ts'

export const permitKind = rule({
  id: 'permit.kind',
  overruled: 'nobody',
  reads: ['permit'],
  says: { fits: ['fits', 'kind'], other: ['does-not-fit', 'kind', 'asked'] },
  concerns: ({ shelved, permit }) =>
    permitKindOf(shelved.manifest) !== undefined && permit !== undefined,
  check: (_, { permit, shelved }) => {
    const asked = permitKindOf(shelved.manifest)
    if (permit === undefined || asked === undefined) return undefined
    const kind = permit.scope
    return kind === asked
      ? { say: 'fits', facts: { kind } }
      : { say: 'other', facts: { kind, asked }, remedy: { kind: 'permit' } }
  },
})
