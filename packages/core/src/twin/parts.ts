/**
 * Questions to the parts of a device: which image stands whole, which build the running slot would start,
 * which loader runs. Reads a device and the catalogue; gives facts of images and builds.
 */
import type { Family } from '../family/profile.ts'
import type { PartRole, Slot } from '../terms/device.ts'
import { holds, isUntouched } from './blocks.ts'
import type { Catalogue, ImageFacts, SignedBuild } from './images.ts'
import type { DeviceModel, Part } from './state.ts'

/** The image a part holds whole; undefined when it is torn, mixed, erased or unknown. */
export function imageOn(part: Part, catalogue: Catalogue): ImageFacts | undefined {
  if (isUntouched(part.map)) return part.was === undefined ? undefined : catalogue.get(part.was)
  const [first] = part.map
  const image = first?.kind === 'image' ? first.image : part.was
  const facts = image === undefined ? undefined : catalogue.get(image)
  if (facts === undefined) return undefined
  return holds(part.map, facts.image, 0, facts.blocks, part.was) ? facts : undefined
}

/** Neither what was there when it came nor a whole image. */
export const isTorn = (part: Part, catalogue: Catalogue): boolean =>
  !isUntouched(part.map) && imageOn(part, catalogue) === undefined

/** Every part of a role. */
export const partsOf = (device: DeviceModel, role: PartRole): readonly Part[] =>
  Object.values(device.parts).filter((part) => part.role === role)

/** The slot that the next start takes; undefined: the family has none. */
export const slotToStart = ({ slots }: DeviceModel): Slot | undefined => slots?.tries ?? slots?.runs

export const otherSlot = (slot: Slot): Slot => (slot === 'a' ? 'b' : 'a')

/** The part of a role in a slot, or the one that has none. */
export const partIn = (
  device: DeviceModel,
  role: PartRole,
  slot: Slot | undefined = slotToStart(device),
): Part | undefined =>
  partsOf(device, role).find((part) => part.slot === undefined || part.slot === slot)

/** The loader that runs: the slot's own, or the other where that one is torn. */
export function loaderOn(device: DeviceModel, catalogue: Catalogue): Part | undefined {
  const own = partIn(device, 'loader')
  if (own === undefined || !isTorn(own, catalogue)) return own
  return partsOf(device, 'loader').find((part) => !isTorn(part, catalogue)) ?? own
}

/** Its version, where the image is one we know; else the one it came with. */
export function loaderVersionOn(device: DeviceModel, catalogue: Catalogue): number {
  const part = loaderOn(device, catalogue)
  const image = part === undefined ? undefined : imageOn(part, catalogue)
  return image?.loaderVersion ?? device.loaderVersion
}

/** The parts of the family's signed set in a slot. */
export const setIn = (
  family: Family,
  device: DeviceModel,
  slot: Slot | undefined = slotToStart(device),
): readonly Part[] => family.signedSet.flatMap((role) => partIn(device, role, slot) ?? [])

/**
 * The newest build that every part of the signed set is of; undefined: there is none. A modified part counts
 * as of the builds it was made from.
 */
export function systemOn(
  family: Family,
  device: DeviceModel,
  catalogue: Catalogue,
  slot: Slot | undefined = slotToStart(device),
): SignedBuild | undefined {
  const sets = setIn(family, device, slot).map((part) => imageOn(part, catalogue)?.builds ?? [])
  const [first = [], ...others] = sets
  const common = first.filter(({ build }) =>
    others.every((set) => set.some((one) => one.build === build)),
  )
  /* Rows of one build share its images: which of them it is shows in the variant part. */
  const variant = partIn(device, 'variant', slot)
  const rows = variant === undefined ? [] : (imageOn(variant, catalogue)?.builds ?? [])
  const told = common.filter(({ build }) => rows.some((one) => one.build === build))
  return (told.length > 0 ? told : common).reduce<SignedBuild | undefined>(
    (newest, one) => (newest === undefined || one.patchDate > newest.patchDate ? one : newest),
    undefined,
  )
}

/** The build a device says it holds: the one it would start, else the one its main part is of. */
export function buildOn(
  family: Family,
  device: DeviceModel,
  catalogue: Catalogue,
): SignedBuild | undefined {
  const main = partIn(device, 'main')
  const image = main === undefined ? undefined : imageOn(main, catalogue)
  return systemOn(family, device, catalogue) ?? image?.builds.at(-1)
}
