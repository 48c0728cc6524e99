/**
 * What an operation's declared effect makes of a device: erased partitions, the customer's data, permission,
 * marks, floors. Reads a device and an effect; gives the device after it. Bytes that are written lie in
 * `written`, time and charge in `stepped`.
 */
import type { Effect } from '../effect/effect.ts'
import type { Family } from '../family/profile.ts'
import type { Rise } from '../family/rules.ts'
import type { PartRole } from '../terms/device.ts'
import { lay } from './blocks.ts'
import type { Catalogue } from './images.ts'
import { imageOn, partIn } from './parts.ts'
import type { DeviceModel, Floors } from './state.ts'
import { touched, withPart } from './written.ts'

/** The device with an effect carried out. */
export function applied(device: DeviceModel, effect: Effect): DeviceModel {
  const erased = effect.erases.reduce(withErased, device)
  return {
    ...erased,
    data: dataAfter(erased, effect.data),
    setUpAt: effect.data === 'wipes' ? undefined : erased.setUpAt,
    account: effect.asksAccount && erased.account === 'on' ? ('asked' as const) : erased.account,
    files: erased.files.filter(({ store }) => !effect.empties.includes(store)),
    permission: erased.permission && !effect.clearsPermission,
    marks: [...new Set([...erased.marks, ...effect.marks])],
  }
}

/** A partition erased from end to end: nothing of it can be read. One that is not there changes nothing. */
export function withErased(device: DeviceModel, partition: string): DeviceModel {
  const part = device.parts[partition]
  if (part === undefined) return device
  const map = lay(part.map, { from: 0, to: part.blocks, kind: 'erased' })
  return touched(withPart(device, partition, { ...part, map }), part)
}

function dataAfter({ data }: DeviceModel, change: Effect['data']): DeviceModel['data'] {
  if (change === 'keeps' || data.form === 'none') return data
  if (change === 'wipes') return { ...data, form: 'none', resetAsked: false, items: 0, bytes: 0 }
  return { ...data, form: 'unreadable', resetAsked: true }
}

/** The floors after a moment at which the family lets some rise: to what stands on the parts then. */
export function raised(
  family: Family,
  device: DeviceModel,
  catalogue: Catalogue,
  moment: Rise,
  only?: PartRole,
): Floors {
  const rules = family.floors.rules.filter(({ rises }) => rises.includes(moment))
  const roles = [...new Set(Object.values(device.parts).map(({ role }) => role))]
  return rules.reduce<Floors>((floors, rule) => {
    const mine = roles.filter(
      (role) =>
        (rule.roles === 'any' || rule.roles.includes(role)) &&
        (only === undefined || role === only),
    )
    return mine.reduce(
      (all, role) => risen(family, device, catalogue, { floors: all, role }),
      floors,
    )
  }, device.floors)
}

/** One role's part taken as the new floor, where it is above the old one. */
function risen(
  family: Family,
  device: DeviceModel,
  catalogue: Catalogue,
  { floors, role }: { readonly floors: Floors; readonly role: PartRole },
): Floors {
  const part = partIn(device, role)
  const image = part === undefined ? undefined : imageOn(part, catalogue)
  if (image === undefined || image.modified) return floors
  const generation = Math.max(...image.builds.map((one) => one.generation))
  const key = family.floors.kept === 'one' ? 'all' : role
  return { ...floors, [key]: Math.max(floors[key] ?? 0, generation) }
}
