/**
 * Its bytes equal a digest from outside. One that nobody outside vouches for wants a digest, or a lead's word at
 * Ready. A depot's signed catalogue is worth more than what one person typed in, which weakens with age. In a house that compares none of its maker's own downloads, one that came from its maker does without. A refuted
 * one never fits. For what an owner made nobody ever publishes a digest.
 */
import type { Manifest, Vouched } from '../../firmware/manifest.ts'
import type { HouseRules } from '../house.ts'
import { rule } from '../rule.ts'

export const published = rule({
  id: 'package.published',
  overruled: 'nobody',
  reads: ['house'],
  says: {
    fits: ['fits', 'title'],
    signed: ['fits', 'title', 'date'],
    told: ['fits', 'title', 'date'],
    whole: ['fits-if', 'title'],
    own: ['fits', 'title'],
    carried: ['fits-if', 'title'],
    refuted: ['does-not-fit', 'title'],
  },
  concerns: ({ shelved }) => shelved.state !== 'known',
  check: (_, { house, shelved }) => {
    const { manifest, state } = shelved
    const facts = { title: manifest.title }
    if (state === 'refuted') return { say: 'refuted', facts }
    if (state === 'published') return vouchedFor(shelved.vouched, facts)
    if (manifest.carried !== undefined) return { say: 'carried', facts }
    return needsNoDigest(house, manifest)
      ? { say: 'own', facts }
      : { say: 'whole', facts, remedy: { kind: 'publish' } }
  },
})

/** A depot signed for it, its maker's page says so, or one person typed the digest in. */
function vouchedFor(vouched: Vouched | undefined, { title }: { readonly title: string }) {
  if (vouched === undefined) return { say: 'fits', facts: { title } } as const
  const { by, date } = vouched
  if (by === 'maker') return { say: 'fits', facts: { title } } as const
  if (by === 'catalogue') return { say: 'signed', facts: { title, date } } as const
  return { say: 'told', facts: { title, date }, rests: { date, on: 'person' } } as const
}

/** What its maker gave out itself is digested, and compared with nothing, where the house has it so. */
export const needsNoDigest = (
  { digests }: Pick<HouseRules, 'digests'>,
  { published: { sourceKind } }: Manifest,
): boolean => digests === 'others' && sourceKind === 'maker'
