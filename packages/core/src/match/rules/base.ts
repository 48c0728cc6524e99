/**
 * An increment goes on one exact build that nobody changed. The build is read; what was changed on it shows where
 * its digests were read, and the device looks it over block by block itself.
 */
import { settled } from '../../device/identity.ts'
import { placesOf } from '../../family/layout.ts'
import type { Case, Rule } from '../rule.ts'

export const base: Rule = {
  id: 'state.base',
  needs: ['build'],
  final: true,
  codes: ['fit.state.base.fits', 'fit.state.base.other', 'fit.state.base.changed'],
  check: ({ build }, at) => {
    const { kind, requires } = at.shelved.manifest
    if (kind !== 'incremental' || requires.exactBuild === undefined) return undefined
    const facts = { here: build ?? '', wanted: requires.exactBuild }
    if (build !== requires.exactBuild)
      return { verdict: 'does-not-fit', code: 'fit.state.base.other', facts }
    const partition = changedPart(at)
    if (partition !== undefined)
      return {
        verdict: 'does-not-fit',
        code: 'fit.state.base.changed',
        facts: { ...facts, partition },
      }
    return { verdict: 'fits', code: 'fit.state.base.fits', facts }
  },
}

/** A part of the signed set whose digest is none of the base's. */
function changedPart({ family, shelf, shelved, evidence, identity }: Case): string | undefined {
  const of = shelf.find(
    ({ manifest }) =>
      manifest.kind === 'full' && manifest.build === shelved.manifest.requires.exactBuild,
  )
  const runs = settled(identity, 'slot')
  const set = of?.manifest.images.filter(({ role }) => family.signedSet.includes(role)) ?? []
  const places = set.flatMap((image) =>
    placesOf(family, image).map(({ name, slot }) => ({ name, slot, sha256: image.sha256 })),
  )
  return places.find(({ name, slot, sha256 }) => {
    const found = slot === undefined || slot === runs ? evidence.get(name) : undefined
    return found?.kind === 'digest' && found.sha256 !== sha256
  })?.name
}
