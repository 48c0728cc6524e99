/** The loader is not newer than the package starts under: it does not go back, whatever the package brings. */
import { rule } from '../rule.ts'

export const loaderMost = rule({
  id: 'state.loader.most',
  overruled: 'nobody',
  needs: ['loaderVersion'],
  alike: ({ requires: { maxLoader } }) => `${maxLoader}`,
  says: { fits: ['fits', 'here', 'most'], new: ['does-not-fit', 'here', 'most'] },
  concerns: ({ shelved }) => shelved.manifest.requires.maxLoader !== undefined,
  check: ({ loaderVersion }, { shelved }) => {
    const facts = { here: Number(loaderVersion), most: shelved.manifest.requires.maxLoader ?? 0 }
    return facts.here > facts.most ? { say: 'new', facts } : { say: 'fits', facts }
  },
})
