/**
 * What an increment goes on was not changed: of every part of the signed set whose digest was read it is the
 * base's. The device looks over the rest itself, block by block, and refuses after minutes.
 */
import { placesOf } from '../../family/layout.ts'
import type { Case } from '../rule.ts'
import { rule } from '../rule.ts'
import { fullOf } from '../shelf-index.ts'

export const untouched = rule({
  id: 'state.untouched',
  overruled: 'nobody',
  needs: ['build'],
  alike: ({ kind, requires: { exactBuild } }) => `${kind} ${exactBuild}`,
  sees: ['slot'],
  reads: ['evidence', 'shelf'],
  says: { fits: ['fits', 'wanted'], changed: ['does-not-fit', 'wanted', 'partition'] },
  brought: ({ requires }, other) => other.kind === 'full' && other.build === requires.exactBuild,
  concerns: ({ shelved }) => shelved.manifest.kind === 'incremental',
  check: ({ build, slot }, at) => {
    const wanted = at.shelved.manifest.requires.exactBuild ?? ''
    /* On another build it does not go at all, and another rule says so. */
    if (build !== wanted) return undefined
    const partition = changedPart(at, wanted, slot)
    return partition === undefined
      ? { say: 'fits', facts: { wanted } }
      : { say: 'changed', facts: { wanted, partition } }
  },
})

/** A part of the signed set, of the slot that runs, whose digest is none of the base's. */
function changedPart(
  { family, shelf, evidence }: Pick<Case, 'family' | 'shelf' | 'evidence'>,
  base: string,
  runs: string | number | undefined,
): string | undefined {
  const [of] = fullOf(shelf, base)
  for (const image of of?.manifest.images ?? []) {
    if (!family.signedSet.includes(image.role)) continue
    const place = placesOf(family, image).find(
      ({ slot }) => slot === undefined || runs === undefined || slot === runs,
    )
    const found = place === undefined ? undefined : evidence.get(place.name)
    if (place !== undefined && found?.kind === 'digest' && found.sha256 !== image.sha256)
      return place.name
  }
  return undefined
}
