/**
 * Service software, and whatever else asks for one, goes on where its maker permits it. A file that its maker signed
 * vouches for itself; what is typed from a paper is a lead's word.
 */
import { permitKindOf } from '../permit.ts'
import { rule } from '../rule.ts'

export const permitHere = rule({
  id: 'permit.here',
  overruled: 'nobody',
  reads: ['permit'],
  says: { fits: ['fits', 'id', 'maker', 'key'], word: ['fits', 'id'], none: ['fits-if'] },
  concerns: ({ shelved }) => permitKindOf(shelved.manifest) !== undefined,
  check: (_, { permit }) => {
    if (permit === undefined) return { say: 'none', facts: {}, remedy: { kind: 'permit' } }
    const { id, signed, said } = permit
    if (signed === undefined)
      return { say: 'word', facts: { id }, rests: { date: said ?? '', on: 'person' } }
    return { say: 'fits', facts: { id, maker: signed.maker, key: signed.key } }
  },
})
