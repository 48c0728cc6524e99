/**
 * Taking up another variant: a package whose variant part is of another row than the device was sold in, for an
 * owner who wants that: of its own region, or of the region in which it will be used. In place only parts are written and
 * the data stay; from new they are erased. Reads a case; gives how, or nothing where it is none or the family does not do it.
 */
import type { FactValue } from '../device/identity.ts'
import type { Adoption } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Case } from './rule.ts'
import type { BoardValues, Target } from './targets.ts'
import { isForRow, targetsFor } from './targets.ts'
import { REGION_TOPIC, isOfRow, wantedRow } from './wanted.ts'

/** The row that a device was sold in, and what it is: a package may be for boards of several rows. */
export type Row = BoardValues & {
  readonly region: FactValue | undefined
  readonly carrier: FactValue | undefined
}

/** Whether a package holds a variant part at all. */
export const bringsVariant = ({ images }: Pick<Manifest, 'images'>): boolean =>
  images.some(({ role }) => role === 'variant')

/** The region in which its owner will use it, where that was named; undefined: here. */
export function usedIn({ lines }: Pick<Case, 'lines'>): string | undefined {
  const used = lines?.get(REGION_TOPIC)?.answer
  return used === 'here' ? undefined : used
}

type At = Pick<Case, 'family' | 'intent' | 'keepData' | 'house' | 'shelved' | 'lines'>

export function adoptionOf(at: At, row: Row): Adoption | undefined {
  const { family, intent, keepData, house, shelved } = at
  const { region, carrier, ...board } = row
  const { manifest } = shelved
  const how = keepData ? 'in-place' : 'from-new'
  if (intent !== 'variant-change' || !bringsVariant(manifest) || !family.adopts.includes(how))
    return undefined
  /* A house that leaves every device the variant it was bought as. */
  if (house.variant === 'bought') return undefined
  if (region === undefined || carrier === undefined) return undefined
  const near = targetsFor(at, board).filter((target) => isOfRegion(target, region, at))
  const own = near.some((target) => isForRow(target, region, carrier))
  return near.length > 0 && !own ? how : undefined
}

/** Whether a target is of the region of a device, or of the one in which it will be used. */
const isOfRegion = (target: Target, region: FactValue, at: Pick<Case, 'lines'>): boolean =>
  target.region !== undefined && [region, usedIn(at)].includes(target.region)

/** The row that a device of one is of after a package: another one where that is taken up, the named one where it brings that. */
export function rowAfter(at: At, row: Row): Pick<Row, 'region' | 'carrier'> {
  const { region, carrier, ...board } = row
  if (region === undefined || adoptionOf(at, row) === undefined) return { region, carrier }
  const near = targetsFor(at, board).filter((target) => isOfRegion(target, region, at))
  const named = wantedRow(at)
  if (named !== undefined && isOfRow(near, named)) return named
  const [to] = near
  return { region: to?.region ?? region, carrier: to?.carriers?.[0] ?? carrier }
}
