/**
 * Taking up another variant: a package whose variant part is of another row than the device was sold in, for an
 * owner who wants that. In place only parts are written and the data stay; from new they are erased. Reads a case;
 * gives how, or nothing where it is none or the family does not do it.
 */
import type { FactValue } from '../device/identity.ts'
import { settled } from '../device/identity.ts'
import type { Adoption } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Case } from './rule.ts'
import { isForRow } from './targets.ts'

export type Row = {
  readonly region: FactValue | undefined
  readonly carrier: FactValue | undefined
}

/** Whether a package holds a variant part at all. */
export const bringsVariant = ({ images }: Pick<Manifest, 'images'>): boolean =>
  images.some(({ role }) => role === 'variant')

export function adoptionOf(
  {
    family,
    intent,
    keepData,
    house,
    shelved: { manifest },
  }: Pick<Case, 'family' | 'intent' | 'keepData' | 'house' | 'shelved'>,
  { region, carrier }: Row,
): Adoption | undefined {
  const how = keepData ? 'in-place' : 'from-new'
  if (intent !== 'variant-change' || !bringsVariant(manifest) || !family.adopts.includes(how))
    return undefined
  /* A house that leaves every device the variant it was bought as. */
  if (house.variant === 'bought') return undefined
  if (region === undefined || carrier === undefined) return undefined
  const near = manifest.targets.filter((target) => target.region === region)
  const own = near.some((target) => isForRow(target, region, carrier))
  return near.length > 0 && !own ? how : undefined
}

/** The same of a whole case. */
export const adoptionIn = (at: Case): Adoption | undefined =>
  adoptionOf(at, {
    region: settled(at.identity, 'region'),
    carrier: settled(at.identity, 'carrier'),
  })
