/** It comes from its maker; or from somebody else, and then it is unmodified by a digest of its maker's alone. */
import { rule } from '../rule.ts'

export const source = rule({
  id: 'package.source',
  overruled: 'lead',
  reads: ['house'],
  says: {
    maker: ['fits', 'source'],
    equal: ['fits', 'source'],
    other: ['fits-if', 'source', 'date'],
    house: ['does-not-fit', 'source'],
  },
  check: (_, { house, shelved: { manifest, state } }) => {
    const { source: from, sourceKind, date } = manifest.published
    if (sourceKind === 'maker') return { say: 'maker', facts: { source: from } }
    if (house.source === 'maker') return { say: 'house', facts: { source: from } }
    return state === 'published'
      ? { say: 'equal', facts: { source: from } }
      : { say: 'other', facts: { source: from, date }, remedy: { kind: 'publish' } }
  },
})
