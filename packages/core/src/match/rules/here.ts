/** The package's bytes are here. */
import { rule } from '../rule.ts'

export const here = rule({
  id: 'package.here',
  overruled: 'nobody',
  says: { fits: ['fits', 'title'], fetch: ['fits-if', 'title'] },
  check: (_, { shelved: { manifest, state } }) =>
    state === 'known'
      ? { say: 'fetch', facts: { title: manifest.title }, remedy: { kind: 'fetch' } }
      : { say: 'fits', facts: { title: manifest.title } },
})
