/**
 * Its bytes equal a digest from outside. One that nobody outside vouches for wants a digest, or a lead's word at
 * Ready; in a house that compares none of its maker's own downloads, one that came from its maker does without. A refuted
 * one never fits.
 */
import type { Manifest } from '../../firmware/manifest.ts'
import type { HouseRules } from '../house.ts'
import { rule } from '../rule.ts'

export const published = rule({
  id: 'package.published',
  overruled: 'nobody',
  reads: ['house'],
  says: {
    fits: ['fits', 'title'],
    whole: ['fits-if', 'title'],
    own: ['fits', 'title'],
    refuted: ['does-not-fit', 'title'],
  },
  concerns: ({ shelved }) => shelved.state !== 'known',
  check: (_, { house, shelved: { manifest, state } }) => {
    const facts = { title: manifest.title }
    if (state === 'refuted') return { say: 'refuted', facts }
    if (state === 'published') return { say: 'fits', facts }
    return needsNoDigest(house, manifest)
      ? { say: 'own', facts }
      : { say: 'whole', facts, remedy: { kind: 'publish' } }
  },
})

/** What its maker gave out itself is digested, and compared with nothing, where the house has it so. */
export const needsNoDigest = (
  { digests }: Pick<HouseRules, 'digests'>,
  { published: { sourceKind } }: Manifest,
): boolean => digests === 'others' && sourceKind === 'maker'
