/**
 * Closing the boot lock: what a device looks at before it closes, as its family says. Reads a device as it
 * stands; gives why it does not close, or nothing.
 */
import type { DeviceRefusal } from '../wire/verbs.ts'
import type { ImageFacts } from './images.ts'
import { rowOf } from './images.ts'
import { imageOn, isTorn } from './parts.ts'
import { floorFor } from './start.ts'
import type { DeviceModel, Part } from './state.ts'
import type { Nature } from './stepped.ts'

/** Why the lock does not close over what stands on the device; undefined: it closes. */
export function closingRefused(nature: Nature, device: DeviceModel): DeviceRefusal | undefined {
  const { family, catalogue } = nature
  if (family.lock.opens !== 'command') return 'not-allowed'
  const over = family.lock.closesOver
  const parts = Object.values(device.parts).filter(isStarted(nature))
  const images = parts.map((part) => imageOn(part, catalogue))
  const torn = parts.some((part) => isTorn(part, catalogue))
  if (over.includes('signed') && (torn || images.some((one) => one?.modified === true)))
    return 'not-signed'
  if (over.includes('fused-variant') && images.some((one) => isForeign(device, one)))
    return 'other-variant'
  if (over.includes('floors') && parts.some((part, at) => isLow(device, part, images[at])))
    return 'floor'
  return undefined
}

/** Parts that the device starts from, in every slot: not the customer's, the cache, or what is never written. */
const isStarted =
  ({ family }: Nature) =>
  ({ role }: Part): boolean =>
    family.writeOrder.includes(role) && !family.wipe.includes(role)

const isForeign = ({ fused }: DeviceModel, image: ImageFacts | undefined): boolean =>
  image !== undefined &&
  image.role === 'variant' &&
  !image.builds.some(
    ({ rows }) => rows.length === 0 || rows.includes(rowOf(fused.region, fused.carrier)),
  )

const isLow = (device: DeviceModel, part: Part, image: ImageFacts | undefined): boolean =>
  image !== undefined &&
  image.builds.every(({ generation }) => generation < floorFor(device.floors, part.role))
