/**
 * Permits on the twin: taken where the maker granted them to this device and they are not used up; what service
 * software does at its start. Reads a device and a permit; gives the device after it, or why not.
 */
import { marksBy } from '../effect/effect.ts'
import { takesIn } from '../family/modes.ts'
import type { Family } from '../family/profile.ts'
import type { Permit } from '../wire/permit.ts'
import { isSamePermit } from '../wire/permit.ts'
import type { ImageFacts } from './images.ts'
import type { DeviceModel } from './state.ts'
import type { Nature, Stepped } from './stepped.ts'
import { done, refuse, told } from './stepped.ts'

export function takePermit(nature: Nature, device: DeviceModel, permit: Permit): Stepped {
  if (!takesIn(nature.family, device.mode, 'permit')) return refuse(device, 'wrong-mode')
  if (permit.device !== device.fused.deviceId) return refuse(device, 'other-device')
  if (nature.permits?.some((one) => isSamePermit(one, permit)) !== true)
    return refuse(device, 'not-granted')
  if (device.spent.includes(permit.id)) return refuse(device, 'spent')
  if (device.permit === permit.id) return told(device, { kind: 'done' })
  return done(nature, { ...device, permit: permit.id }, { kind: 'permit' }, { kind: 'done' })
}

/** Whether an image is of service software alone. */
export const isService = ({ builds }: ImageFacts): boolean =>
  builds.length > 0 && builds.every(({ service }) => service)

/** Service software has started: its mark is set, its permit used up; floors and data are what they were. */
export function served(family: Family, device: DeviceModel): DeviceModel {
  const { permit, spent, marks } = device
  return {
    ...device,
    permit: undefined,
    spent: permit === undefined ? spent : [...spent, permit],
    marks: [...new Set([...marks, ...marksBy(family, 'service')])],
  }
}
