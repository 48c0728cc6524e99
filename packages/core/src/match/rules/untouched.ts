/**
 * What an increment goes on was not changed, nor what another package asks to be untouched: of every part of the signed
 * set whose digest was read it is the base's. The device looks over the rest itself, block by block, and refuses after minutes.
 */
import { placesOf } from '../../family/layout.ts'
import type { Manifest } from '../../firmware/manifest.ts'
import type { Case } from '../rule.ts'
import { rule } from '../rule.ts'
import { fullForSame } from '../shelf-index.ts'
import { targetsText } from '../targets.ts'

export const untouched = rule({
  id: 'state.untouched',
  overruled: 'nobody',
  needs: ['build'],
  alike: (manifest) =>
    `${isAsked(manifest)} ${manifest.requires.exactBuild} ${manifest.family} ${targetsText(manifest)}`,
  sees: ['slot'],
  reads: ['evidence', 'shelf'],
  says: { fits: ['fits', 'wanted'], changed: ['does-not-fit', 'wanted', 'partition'] },
  brought: ({ requires: { exactBuild, untouchedSystem } }, other) =>
    other.kind === 'full' &&
    (other.build === exactBuild || (exactBuild === undefined && untouchedSystem === true)),
  concerns: ({ shelved }) => isAsked(shelved.manifest),
  check: ({ build, slot }, at) => {
    const { exactBuild, untouchedSystem } = at.shelved.manifest.requires
    const wanted = exactBuild ?? (untouchedSystem === true ? String(build) : '')
    /* On another build it does not go at all, and another rule says so. */
    if (build !== wanted) return undefined
    const partition = changedPart(at, wanted, slot)
    return partition === undefined
      ? { say: 'fits', facts: { wanted } }
      : { say: 'changed', facts: { wanted, partition } }
  },
})

/** An increment is made from the parts of its base; another package may ask as much. */
const isAsked = ({ kind, requires: { untouchedSystem } }: Manifest): boolean =>
  kind === 'incremental' || untouchedSystem === true

/** A part of the signed set, of the slot that runs, whose digest is that of no package of the base. */
function changedPart(
  { family, shelf, evidence, shelved }: Pick<Case, 'family' | 'shelf' | 'evidence' | 'shelved'>,
  base: string,
  runs: string | number | undefined,
): string | undefined {
  const bases = fullForSame(shelf, shelved.manifest, base)
  const changed = bases.map(({ manifest }) => changedFrom(manifest, { family, evidence, runs }))
  return changed.includes(undefined) ? undefined : changed[0]
}

function changedFrom(
  { images }: Manifest,
  {
    family,
    evidence,
    runs,
  }: Pick<Case, 'family' | 'evidence'> & { readonly runs: string | number | undefined },
): string | undefined {
  for (const image of images) {
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
