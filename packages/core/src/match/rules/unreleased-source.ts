/** A build that its maker has not released, or gives to a few, comes from its maker, and from nobody else. */
import { rule } from '../rule.ts'
import { isEarly } from './unreleased.ts'

export const unreleasedSource = rule({
  id: 'package.unreleased-source',
  overruled: 'nobody',
  says: { maker: ['fits', 'source'], other: ['does-not-fit', 'source'] },
  concerns: ({ shelved }) => isEarly(shelved.manifest),
  check: (_, { shelved: { manifest } }) => {
    const facts = { source: manifest.published.source }
    return manifest.published.sourceKind === 'maker'
      ? { say: 'maker', facts }
      : { say: 'other', facts }
  },
})
