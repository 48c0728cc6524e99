/**
 * Its bytes equal a digest from outside. One that nobody outside vouches for wants a digest, or a lead's word at
 * Ready. A refuted one never fits.
 */
import { rule } from '../rule.ts'

export const published = rule({
  id: 'package.published',
  overruled: 'nobody',
  says: {
    fits: ['fits', 'title'],
    whole: ['fits-if', 'title'],
    refuted: ['does-not-fit', 'title'],
  },
  concerns: ({ shelved }) => shelved.state !== 'known',
  check: (_, { shelved: { manifest, state } }) => {
    const facts = { title: manifest.title }
    if (state === 'refuted') return { say: 'refuted', facts }
    return state === 'published'
      ? { say: 'fits', facts }
      : { say: 'whole', facts, remedy: { kind: 'publish' } }
  },
})
