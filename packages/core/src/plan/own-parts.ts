/**
 * Parts that are their owner's own: under an open lock, by the device's own digest, what no package that is known holds.
 * Reads a case and the images that are to go on; gives the roles that the house keeps.
 */
import { settled } from '../device/identity.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { isKnown } from '../match/known.ts'
import type { Case } from '../match/rule.ts'
import type { PartRole } from '../terms/device.ts'

/** Of these an owner's own is kept: nothing else starts from them. */
const KEPT: readonly PartRole[] = ['rescue']

export function ownParts(at: Case, { images }: Manifest): readonly PartRole[] {
  const { house, identity, intent, evidence } = at
  const open = settled(identity, 'bootLock') === 'open'
  if (house.rescue !== 'kept' || !open || intent === 'relock') return []
  return images
    .filter(
      ({ role, partition }) =>
        KEPT.includes(role) &&
        evidence.get(partition)?.kind === 'digest' &&
        !isKnown(at, partition),
    )
    .map(({ role }) => role)
}
