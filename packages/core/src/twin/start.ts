/**
 * What a start to the system comes to, by the family's start rules: the first that decides is the last that
 * is asked, limits add up on the way. Reads a device as it stands; gives the outcome, its limits, the
 * sentence it shows and the slot that was started. Nothing here knows a family.
 */
import { faultsUnder } from '../family/faults.ts'
import type { Family } from '../family/profile.ts'
import { isTrackBack } from '../family/profile.ts'
import type { Condition, KnownFault, StartRule } from '../family/rules.ts'
import type { Limit, Mode, PartRole, Slot } from '../terms/device.ts'
import type { StartOutcome } from '../wire/facts.ts'
import type { Catalogue, SignedBuild } from './images.ts'
import { rowOf } from './images.ts'
import {
  imageOn,
  isTorn,
  loaderVersionOn,
  otherSlot,
  partIn,
  partsOf,
  setIn,
  slotToStart,
  systemOn,
} from './parts.ts'
import type { DeviceModel, Floors, Part } from './state.ts'

export type Start = {
  readonly outcome: StartOutcome
  readonly limits: readonly Limit[]
  /** Where it stands after: a mode it stays in; undefined: it runs, loops or is dead. */
  readonly stays: Mode | undefined
  readonly says: string | undefined
  /** The slot that was started, and how many starts went bad before that. */
  readonly slot: Slot | undefined
  readonly bad: number
  /** Seconds of warnings that were shown on the way. */
  readonly warned: number
  /** The build that runs; undefined: none does. */
  readonly build: SignedBuild | undefined
  /** The rules that held on the way, the last of them the one that decided, where one did. */
  readonly met: readonly StartRule[]
}

type World = {
  readonly family: Family
  readonly device: DeviceModel
  readonly catalogue: Catalogue
  readonly slot: Slot | undefined
}

/** What a start would come to. */
export function startOf(family: Family, device: DeviceModel, catalogue: Catalogue): Start {
  return startIn({ family, device, catalogue, slot: slotToStart(device) }, 0, [])
}

function startIn(world: World, bad: number, before: readonly StartRule[]): Start {
  const { family, device, catalogue, slot } = world
  const build = systemOn(family, device, catalogue, slot)
  const limits: Limit[] = faultsOf(world).flatMap(({ limit }) => limit ?? [])
  let warned = 0
  const met = [...before]
  for (const rule of family.start) {
    if (!rule.when.every((one) => isSo(world, one, build))) continue
    met.push(rule)
    const { end } = rule
    if (end.kind === 'limit') limits.push(end.limit)
    else if (end.kind === 'warns') warned += end.seconds
    else return ended(world, { rule, bad, warned, met })
  }
  if (build === undefined) return { ...PLAIN, outcome: 'loop', slot, bad, warned, met }
  const outcome = awaitsSetUp(device) ? 'set-up' : 'normal'
  return { ...PLAIN, outcome, limits: [...new Set(limits)], slot, bad, warned, build, met }
}

/** Wiped, and nobody went through its set-up since. */
export const awaitsSetUp = ({ data, setUpAt }: DeviceModel): boolean =>
  data.form === 'none' && setUpAt === undefined

const PLAIN = { limits: [], stays: undefined, says: undefined, build: undefined } as const

type Decided = {
  readonly rule: StartRule
  readonly bad: number
  readonly warned: number
  readonly met: readonly StartRule[]
}

/** What a rule that decides comes to. */
function ended(world: World, { rule, bad, warned, met }: Decided): Start {
  const { slot } = world
  const { end, says } = rule
  const plain = { ...PLAIN, says, slot, bad, warned, met }
  switch (end.kind) {
    case 'dead':
    case 'loop':
    case 'asks-reset':
      return { ...plain, outcome: end.kind }
    case 'stays':
      return { ...plain, outcome: 'stays', stays: end.mode }
    case 'falls-back': {
      const tried = bad + end.after
      if (slot === undefined || bad > 0)
        return { ...plain, outcome: 'stays', stays: end.mode, bad: tried }
      return startIn({ ...world, slot: otherSlot(slot) }, tried, met)
    }
    case 'limit':
    case 'warns':
      throw new RangeError('a rule that decides nothing')
  }
}

function isSo(world: World, condition: Condition, build: SignedBuild | undefined): boolean {
  const { device } = world
  if ('lock' in condition) return device.lock === condition.lock
  if ('merge' in condition) return device.merge === condition.merge
  if ('set' in condition) return isSetSo(world, condition.set, build)
  if ('data' in condition) return areDataSo(world, condition.data, build)
  return isPartSo(world, condition)
}

function isSetSo(
  { family, device, catalogue, slot }: World,
  is: 'torn' | 'mixed' | 'needs-loader',
  build: SignedBuild | undefined,
): boolean {
  const parts = setIn(family, device, slot)
  const torn = parts.some((part) => isTorn(part, catalogue))
  if (is === 'torn') return torn
  if (is === 'mixed') return !torn && build === undefined
  return build !== undefined && loaderVersionOn(device, catalogue) < build.minLoader
}

function areDataSo(
  { family, device: { data } }: World,
  is: 'newer-release' | 'newer-patch' | 'later-track' | 'reset-asked',
  build: SignedBuild | undefined,
): boolean {
  if (data.form === 'none' || build === undefined || build.service) return false
  switch (is) {
    case 'newer-release':
      return data.release > build.release
    case 'newer-patch':
      return data.patchDate > build.patchDate
    case 'later-track':
      return isTrackBack(family, data.track, build.track)
    case 'reset-asked':
      return data.resetAsked
  }
}

type PartCondition = Extract<Condition, { part: unknown }>

function isPartSo(world: World, { part, is, every }: PartCondition): boolean {
  const { device, slot } = world
  const roles = part === 'any' ? rolesOn(device) : part
  const ask = (one: Part) => isOne(world, one, is)
  if (every !== true)
    return roles.some((role) => {
      const own = partIn(device, role, slot)
      return own !== undefined && ask(own)
    })
  return roles.some((role) => partsOf(device, role).length > 0 && partsOf(device, role).every(ask))
}

const rolesOn = (device: DeviceModel): readonly PartRole[] => [
  ...new Set(Object.values(device.parts).map(({ role }) => role)),
]

function isOne(world: World, part: Part, is: PartCondition['is']): boolean {
  const { device, catalogue } = world
  if (is === 'torn') return isTorn(part, catalogue)
  const image = imageOn(part, catalogue)
  if (is === 'unpaired') return isUnpaired(image?.builds ?? [], loaderVersionOn(device, catalogue))
  if (image === undefined) return false
  if (is === 'modified') return image.modified
  const none = (holds: (build: SignedBuild) => boolean) => !image.builds.some(holds)
  const among = (listed: readonly string[], one: string) =>
    listed.length === 0 || listed.includes(one)
  const { fused } = device
  switch (is) {
    case 'other-chipset':
      return none(({ chipsets }) => among(chipsets, fused.chipset))
    case 'other-board':
      return none(({ boards }) => among(boards, fused.board))
    case 'below-floor':
      return none(({ generation }) => generation >= floorFor(device.floors, part.role))
    case 'not-fused':
      return none(({ rows }) => among(rows, rowOf(fused.region, fused.carrier)))
    case 'other-variant':
      return isOtherVariant(world, image.builds)
  }
}

/** No build of it takes the loader that runs. */
const isUnpaired = (builds: readonly SignedBuild[], loader: number): boolean =>
  !builds.some(
    ({ minLoader, maxLoader }) =>
      loader >= minLoader && (maxLoader === null || loader <= maxLoader),
  )

/** Of no row that the main part is made for. */
function isOtherVariant(
  { family, device, catalogue, slot }: World,
  builds: readonly SignedBuild[],
): boolean {
  const main = systemOn(family, device, catalogue, slot)
  if (main === undefined || main.rows.length === 0) return false
  return !builds.some(
    ({ rows }) => rows.length === 0 || rows.some((row) => main.rows.includes(row)),
  )
}

/** The floor that a part of a role must reach. */
export const floorFor = (floors: Floors, role: PartRole): number => floors.all ?? floors[role] ?? 0

/** Known faults of this board that show under what stands on it: the maker's own images alone. */
const faultsOf = ({ family, device, catalogue, slot }: World): readonly KnownFault[] =>
  faultsUnder(family, device.fused, (role) => {
    const part = partIn(device, role, slot)
    const image = part === undefined ? undefined : imageOn(part, catalogue)
    return image === undefined || image.modified ? [] : image.builds.map(({ build }) => build)
  })

/** What a known fault makes of the drain: 1 where none shows. */
export const faultDrain = (family: Family, device: DeviceModel, catalogue: Catalogue): number =>
  faultsOf({ family, device, catalogue, slot: slotToStart(device) }).reduce(
    (most, { drain }) => Math.max(most, drain),
    1,
  )
