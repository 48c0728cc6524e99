/**
 * Every start rule of a family fired once, on a device made for it: each of its conditions is brought about, and the device
 * started. Reads a profile; gives for each rule the device on which it held, or why it held on none: because a rule before
 * it decides each time, or because a condition of it holds of no device.
 */
import type { Family } from '../family/profile.ts'
import type { Condition, StartRule } from '../family/rules.ts'
import { withErased } from '../twin/applied.ts'
import { setIn } from '../twin/parts.ts'
import type { Start } from '../twin/start.ts'
import { startOf } from '../twin/start.ts'
import type { DeviceModel, Part } from '../twin/state.ts'
import type { Flaw, Kind, Tried } from './device.ts'
import { imageName, kindName, tried } from './device.ts'

export type RuleTried =
  | { readonly fires: true; readonly on: string; readonly outcome: Start['outcome'] }
  /** `condition`: the place of one that holds of no device. */
  | { readonly fires: false; readonly why: 'no-device'; readonly condition: number }
  /** `rules`: the places of those that decide before it, one of them each time. */
  | { readonly fires: false; readonly why: 'decided-before'; readonly rules: readonly number[] }
  /** All of it can be so, but not at once, or the device starts another way. */
  | { readonly fires: false; readonly why: 'not-at-once' }

/** More ways of bringing a rule about than this are not tried. */
const MOST_WAYS = 4000

/** Each start rule in the family's order, tried on the first of these kinds of device on which it holds. */
export function startsTried(family: Family, kinds: readonly Kind[]): readonly RuleTried[] {
  const tracks = [...new Set(['', ...family.dataKeys.tracksBack.map(({ to }) => to)])]
  const devices = kinds.flatMap((kind) => tracks.map((track) => tried(family, kind, track)))
  return family.start.map((rule) => ruleTried(family, rule, devices))
}

function ruleTried(family: Family, rule: StartRule, devices: readonly Tried[]): RuleTried {
  const own = family.start.indexOf(rule)
  const ended = new Set<number | undefined>()
  const brought = rule.when.map(() => false)
  for (const one of devices) {
    rule.when.forEach((condition, at) => {
      if (bringing(family, condition, one).length > 0) brought[at] = true
    })
    for (const device of broughtAbout(family, rule, one)) {
      const start = startOf(family, device, one.nature.catalogue)
      if (start.met.includes(rule))
        return { fires: true, on: kindName(one.kind), outcome: start.outcome }
      const decided = start.met.findLast(({ end }) => end.kind !== 'limit' && end.kind !== 'warns')
      ended.add(decided === undefined ? undefined : family.start.indexOf(decided))
    }
  }
  const never = brought.indexOf(false)
  if (never >= 0) return { fires: false, why: 'no-device', condition: never }
  const rules = [...ended].filter((at) => at !== undefined).sort((one, other) => one - other)
  const before = rules.length > 0 && rules.length === ended.size && rules.every((at) => at < own)
  return before
    ? { fires: false, why: 'decided-before', rules }
    : { fires: false, why: 'not-at-once' }
}

/** Devices on which all conditions of a rule were brought about, each in one of its ways. */
function broughtAbout(family: Family, { when }: StartRule, one: Tried): readonly DeviceModel[] {
  return when.reduce<readonly DeviceModel[]>(
    (devices, condition) =>
      devices
        .flatMap((device) => bringing(family, condition, { ...one, device }))
        .slice(0, MOST_WAYS),
    [one.device],
  )
}

/** The ways in which a condition comes to hold of a device; none: it holds of no device of this family. */
function bringing(family: Family, condition: Condition, { device }: Tried): readonly DeviceModel[] {
  if ('lock' in condition) {
    const can = condition.lock === 'closed' || family.lock.opens === 'command'
    return can ? [{ ...device, lock: condition.lock }] : []
  }
  if ('merge' in condition) {
    const can = family.installs.some(({ merges }) => merges)
    return can ? [{ ...device, merge: condition.merge }] : []
  }
  if ('data' in condition) return withData(family, condition.data, device)
  if ('set' in condition) return withSet(family, condition.set, device)
  const all = [...new Set(Object.values(device.parts).map(({ role }) => role))]
  const roles = condition.part === 'any' ? all : condition.part
  return roles.flatMap((role) => {
    const names = namesIn(device, (part) => part.role === role, condition.every === true)
    if (names.length === 0) return []
    if (condition.is === 'torn') return [names.reduce(withErased, device)]
    return [withFlaw(device, names, condition.is)]
  })
}

/** Partitions of which this is so: of the slot that runs, or of every slot. */
const namesIn = (
  { parts, slots }: DeviceModel,
  holds: (part: Part) => boolean,
  every: boolean,
): readonly string[] =>
  Object.entries(parts).flatMap(([name, part]) =>
    holds(part) && (every || part.slot === undefined || part.slot === slots?.runs) ? [name] : [],
  )

function withFlaw(device: DeviceModel, names: readonly string[], flaw: Flaw): DeviceModel {
  const changed = names.flatMap((name) => {
    const part = device.parts[name]
    return part === undefined ? [] : [[name, { ...part, was: imageName(part.role, flaw) }] as const]
  })
  return { ...device, parts: { ...device.parts, ...Object.fromEntries(changed) } }
}

function withSet(
  family: Family,
  is: Extract<Condition, { set: unknown }>['set'],
  device: DeviceModel,
): readonly DeviceModel[] {
  const set = setIn(family, device)
  const namesOf = (wanted: readonly Part[]) =>
    namesIn(device, (part) => wanted.includes(part), true)
  if (is === 'torn') return set.map((part) => namesOf([part]).reduce(withErased, device))
  if (is === 'needs-loader')
    return set.length === 0 ? [] : [withFlaw(device, namesOf(set), 'newer-loader')]
  return set.length < 2 ? [] : set.map((part) => withFlaw(device, namesOf([part]), 'other-build'))
}

/** A date and a release that are later than any build's. */
const LATER = { release: 999, patchDate: '2999-12-31' } as const

function withData(
  family: Family,
  is: Extract<Condition, { data: unknown }>['data'],
  device: DeviceModel,
): readonly DeviceModel[] {
  const { data } = device
  const withIt = (more: Partial<DeviceModel['data']>) => [{ ...device, data: { ...data, ...more } }]
  switch (is) {
    case 'newer-release':
      return withIt({ release: LATER.release })
    case 'newer-patch':
      return withIt({ patchDate: LATER.patchDate })
    case 'reset-asked':
      return withIt({ form: 'unreadable', resetAsked: true })
    case 'later-track':
      return family.dataKeys.tracksBack
        .filter(({ to }) => to === data.track)
        .flatMap(({ from }) => withIt({ track: from }))
  }
}
