/**
 * Which slot a package goes to, of a family that keeps its system twice. Reads a case; gives the slot, and a manifest with its
 * images on the partitions of a slot.
 */
import { settled } from '../device/identity.ts'
import { placesOf } from '../family/layout.ts'
import type { Family } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Slot } from '../terms/device.ts'
import type { Case } from './rule.ts'

/**
 * Of a family with slots: whatever brings a system goes to the one that does not run, so that there is one to fall
 * back to; a part is of the system that runs, and goes to that.
 */
export function slotToWrite(at: Pick<Case, 'family' | 'identity' | 'shelved'>): Slot | undefined {
  const runs = slotsOf(at).find((slot) => slot === settled(at.identity, 'slot'))
  return at.shelved.manifest.kind === 'part' && runs !== undefined ? runs : otherSlot(at)
}

/** The slot that does not run: what a device installs by itself goes there, whatever it is. */
export const otherSlot = (at: Pick<Case, 'family' | 'identity'>): Slot | undefined =>
  slotsOf(at).find((slot) => slot !== settled(at.identity, 'slot'))

const slotsOf = ({ family }: Pick<Case, 'family'>): readonly Slot[] => [
  ...new Set(family.partitions.flatMap(({ slot }) => slot ?? [])),
]

/** A package's images on the partitions of the slot they go to. */
export const inSlot = (family: Family, manifest: Manifest, slot: Slot | undefined): Manifest => ({
  ...manifest,
  images: manifest.images.map((image) => {
    const places = placesOf(family, image)
    const own = places.find((place) => place.slot === slot) ?? places[0]
    return own === undefined ? image : { ...image, partition: own.name }
  }),
})
