/**
 * A package that the device opens, looks over and writes by itself: from its memory, a card or its own storage,
 * by its family's rules. Reads a device and where the package lies; gives the device after it. Of a family with
 * slots the one that does not run is written, and tried at the next start.
 */
import { placesOf } from '../family/layout.ts'
import type { InstallRule } from '../family/rules.ts'
import { isKind } from '../family/modes.ts'
import { effectOf } from '../effect/effect.ts'
import type { Slot } from '../terms/device.ts'
import type { DeviceRefusal } from '../wire/verbs.ts'
import { applied, raised } from './applied.ts'
import { BLOCK_BYTES, lay } from './blocks.ts'
import { isFile } from './files.ts'
import type { PackageFacts } from './packages.ts'
import { imageOn, isTorn, otherSlot, partIn, systemOn } from './parts.ts'
import { floorFor } from './start.ts'
import type { DeviceModel, Part, StoredFile } from './state.ts'
import type { Nature, Stepped, TwinInput } from './stepped.ts'
import { done, refuse, told, withoutPower } from './stepped.ts'
import { touched, withPart } from './written.ts'

type Asked = Extract<TwinInput, { kind: 'install' }>

/** What was found to install, and by which rule. */
type Found = {
  readonly rule: InstallRule
  readonly pack: PackageFacts
  readonly slot: Slot | undefined
}

/** Checks and writes; refused, nothing was written. */
export function install(nature: Nature, device: DeviceModel, asked: Asked): Stepped {
  const found = foundFor(nature, device, asked)
  if (typeof found === 'string') return refuse(device, found)
  const { rule, pack, slot } = found
  const refused = lookedOver(nature, device, found)
  const operation = operationOf(nature, found)
  if (refused !== undefined)
    return rule.slowly.includes(pack.kind as 'full') && refused === 'modified'
      ? done(nature, device, { kind: 'check' }, { kind: 'refused', code: refused })
      : refuse(device, refused)
  const wrote = written(nature, device, found, Infinity)
  const told = applied(wrote, effectOf(nature.family, operation))
  const floors = [...new Set(pack.images.map(({ role }) => role))].reduce(
    (all, role) => raised(nature.family, { ...told, floors: all }, nature.catalogue, 'write', role),
    told.floors,
  )
  const after = done(nature, withSlot({ ...told, floors, incoming: undefined }, slot), operation, {
    kind: 'done',
  })
  if (after.device.battery === 0) return ranEmpty(nature, device, asked, after)
  const { confirm, merges } = rule
  const confirmBy = confirm === undefined ? undefined : after.doneAt + confirm.seconds * 1000
  const merge = merges ? ('staged' as const) : after.device.merge
  return { ...after, device: { ...after.device, confirmBy, merge, key: 'none' } }
}

/** Its cell ran empty in the middle: as far as it lasted. */
function ranEmpty(nature: Nature, device: DeviceModel, asked: Asked, whole: Stepped): Stepped {
  const full = { ...device, battery: 100 }
  const left = done(nature, full, operationIn(nature, full, asked), whole.output).device.battery
  const share = left >= 100 ? 1 : Math.min(1, device.battery / (100 - left))
  return told({ ...installCut(nature, device, asked, share), battery: 0 }, { kind: 'silent' })
}

function operationIn(nature: Nature, device: DeviceModel, asked: Asked) {
  const found = foundFor(nature, device, asked)
  return typeof found === 'string' ? ({ kind: 'ask' } as const) : operationOf(nature, found)
}

/** Power gone in mid-install: what came first is whole, the block under way is torn. `share` from 0 to 1. */
export function installCut(
  nature: Nature,
  device: DeviceModel,
  asked: Asked,
  share: number,
): DeviceModel {
  const found = foundFor(nature, device, asked)
  const refused = typeof found === 'string' || lookedOver(nature, device, found) !== undefined
  if (refused || typeof found === 'string') return withoutPower(nature.family, device)
  const limit = share * found.pack.images.reduce((sum, { size }) => sum + size, 0)
  const wrote = written(nature, device, found, limit)
  const operation = operationOf(nature, found)
  const cut = done(nature, wrote, operation, { kind: 'silent' }, share)
  return withoutPower(nature.family, cut.device)
}

const operationOf = (nature: Nature, { rule, pack, slot }: Found) =>
  ({
    kind: 'install',
    store: rule.from,
    bytes: pack.bytes * nature.scale,
    pushed: false,
    slowly: rule.slowly.some((kind) => kind === pack.kind),
    slot,
  }) as const

/** The rule, the file and the package in it; or why there is none. */
function foundFor(nature: Nature, device: DeviceModel, asked: Asked): Found | DeviceRefusal {
  const { family, packages } = nature
  const byHand = asked.name === undefined
  const rule = family.installs.find(
    ({ from, mode, hands }) =>
      from === asked.store && mode === device.mode && (hands !== undefined) === byHand,
  )
  if (rule === undefined) return 'wrong-mode'
  if (device.confirmBy !== undefined) return 'busy'
  const file = fileFor(rule, device, asked, packages)
  if (file === undefined) return 'no-file'
  const pack = packages.get(file.holds)
  if (pack === undefined) return 'not-whole'
  if (!rule.kinds.some((kind) => kind === pack.kind)) return 'not-signed'
  const { slots } = device
  return { rule, pack, slot: slots === undefined ? undefined : otherSlot(slots.runs) }
}

/** The file of a name; where hands name none, the first by name that ends as it must and can be opened. */
function fileFor(
  rule: InstallRule,
  { files }: DeviceModel,
  { store, name }: Asked,
  packages: Nature['packages'],
): StoredFile | undefined {
  if (name !== undefined) return files.find(isFile(store, name))
  const there = files
    .filter((one) => one.store === store && one.name.endsWith(rule.ends))
    .sort((a, b) => (a.name < b.name ? -1 : 1))
  return there.find(({ holds }) => packages.has(holds)) ?? there[0]
}

/** A rescue of its owner's own opens no locked storage; what is pushed into it, it does not take. */
const refusedByOwn = ({ stores }: Nature['family'], { from }: InstallRule): DeviceRefusal =>
  stores.find(({ id }) => id === from)?.partition === undefined ? 'own-rescue' : 'no-storage'

/** Why it installs nothing of what it opened; undefined: it does. */
function lookedOver(
  { family, catalogue }: Nature,
  device: DeviceModel,
  { rule, pack }: Found,
): DeviceRefusal | undefined {
  const { fused } = device
  const looks = (what: (typeof rule.checks)[number]) => rule.checks.includes(what)
  const rescue = partIn(device, 'rescue', device.slots?.runs)
  const own = rescue !== undefined && imageOn(rescue, catalogue)?.modified === true
  if (looks('stock-rescue') && own) return refusedByOwn(family, rule)
  if (device.battery < rule.leastPercent) return 'battery-low'
  if (rule.merges && device.merge !== 'none') return 'merging'
  const images = pack.images.map(({ image }) => catalogue.get(image))
  if (images.some((one) => one === undefined || one.modified)) return 'not-signed'
  const fits = pack.targets.some(
    ({ model, boards }) => model === fused.model && boards.includes(fused.board),
  )
  if (looks('target') && !fits) return 'other-target'
  const low = images.some(
    (one) =>
      one !== undefined &&
      one.builds.every(({ generation }) => generation < floorFor(device.floors, one.role)),
  )
  if (looks('floors') && low) return 'floor'
  if (pack.base === null) return undefined
  const here = systemOn(family, device, catalogue, device.slots?.runs)
  if (looks('base') && here?.build !== pack.base) return 'other-base'
  const set = family.signedSet.flatMap((role) => partIn(device, role, device.slots?.runs) ?? [])
  const changed = set.some(
    (part) => isTorn(part, catalogue) || imageOn(part, catalogue)?.modified === true,
  )
  return looks('unmodified') && changed ? 'modified' : undefined
}

type Laid = {
  readonly name: string
  readonly part: Part
  readonly image: string
  readonly size: number
}

/** Every part it writes, in the package's order; an increment takes what it does not hold from the running slot. */
function laidOut(nature: Nature, device: DeviceModel, { pack, slot }: Found): readonly Laid[] {
  const { family, catalogue } = nature
  const held = pack.images.flatMap(({ role, partition, image, size }): readonly Laid[] => {
    const places = placesOf(family, { role, partition })
    const place = places.find((one) => one.slot === slot) ?? places[0]
    const part = place === undefined ? undefined : device.parts[place.name]
    return place === undefined || part === undefined
      ? []
      : [{ name: place.name, part, image, size }]
  })
  if (slot === undefined || pack.base === null) return held
  const rest = Object.entries(device.parts).flatMap(([name, part]): readonly Laid[] => {
    if (part.slot !== slot || held.some((one) => one.name === name)) return []
    const twin = partIn(device, part.role, otherSlot(slot))
    const on = twin === undefined ? undefined : imageOn(twin, catalogue)
    if (on === undefined || on.image === imageOn(part, catalogue)?.image) return []
    return [{ name, part, image: on.image, size: on.blocks * BLOCK_BYTES }]
  })
  return [...held, ...rest]
}

/** The parts written up to so many bytes of all images; the block under way at their end is torn. */
function written(nature: Nature, device: DeviceModel, found: Found, limit: number): DeviceModel {
  let left = limit
  let after = device
  for (const { name, part, image, size } of laidOut(nature, device, found)) {
    if (left <= 0) break
    const got = Math.min(size, left)
    left -= size
    const whole = got === size ? Math.ceil(size / BLOCK_BYTES) : Math.floor(got / BLOCK_BYTES)
    const laid = lay(part.map, { from: 0, to: whole, kind: 'image', image, at: 0 })
    const torn = got < size ? lay(laid, { from: whole, to: whole + 1, kind: 'torn' }) : laid
    after = touched(withPart(after, name, { ...part, map: torn }), part)
  }
  return after
}

const withSlot = (device: DeviceModel, slot: Slot | undefined): DeviceModel =>
  slot === undefined || device.slots === undefined
    ? device
    : { ...device, slots: { ...device.slots, tries: slot } }

/** A hand said yes to what it asked. */
export const confirmed = (device: DeviceModel): Stepped =>
  told({ ...device, confirmBy: undefined }, { kind: 'silent' })

/** A rescue that only hands start is where they find its menu. */
export const installsByHand = (
  { family }: Nature,
  { mode }: DeviceModel,
): readonly InstallRule[] =>
  isKind(family, mode, 'off')
    ? []
    : family.installs.filter((rule) => rule.mode === mode && rule.hands !== undefined)
