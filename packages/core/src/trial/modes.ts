/**
 * Every mode of a family reached from a device in its system or off, act by act on the twin: keys, lines of menus, commands.
 * Reads a profile; gives for each mode the acts that lead there, the start rule that ends there, or that nothing does, and
 * whether anything leads out again.
 */
import { beginsIn, isKind, modeOfKind } from '../family/modes.ts'
import type { Family, Way } from '../family/profile.ts'
import type { Mode, ModeKind } from '../terms/device.ts'
import type { DeviceModel } from '../twin/state.ts'
import type { Nature, TwinInput } from '../twin/stepped.ts'
import { step } from '../twin/twin.ts'
import type { Tried } from './device.ts'

/**
 * *here*: where a device usually is as it comes in; *acts*: by what is done; *start*: a start of its ends there;
 * *found*: a device can come in so, and nothing that is done ends there: a hang, a loop of its own.
 */
export const REACHED = ['here', 'acts', 'start', 'found', 'never'] as const

export type ModeTried = {
  readonly mode: Mode
  readonly reached: (typeof REACHED)[number]
  /** How it is reached by acts: their places among the family's ways, the first first. */
  readonly ways: readonly number[]
  /** Only with the link permission given. */
  readonly permission: boolean
  /** Whether hands or a command lead out of it. */
  readonly left: boolean
}

type Reached = { readonly device: DeviceModel; readonly ways: readonly number[] }

/** Each mode in the family's order. */
export function modesTried(family: Family, one: Tried): readonly ModeTried[] {
  const walked = reachedBy(family, one, true)
  const without = reachedBy(family, one, false)
  const starts = new Set(
    family.start.flatMap(({ end }) =>
      'mode' in end ? [end.mode] : end.kind === 'loop' ? loopsIn(family) : [],
    ),
  )
  return family.modes.map(({ id: mode, kind }) => {
    const ways = walked.get(mode)?.ways
    return {
      mode,
      reached: howReached({ ways, kind, ends: starts.has(mode) }),
      ways: ways ?? [],
      permission: ways !== undefined && !without.has(mode),
      left: family.ways.some((way) => way.to !== mode && beginsIn(way, mode)),
    }
  })
}

function howReached({
  ways,
  kind,
  ends,
}: {
  readonly ways: readonly number[] | undefined
  readonly kind: ModeKind
  readonly ends: boolean
}): ModeTried['reached'] {
  if (ways !== undefined) return ways.length === 0 ? 'here' : 'acts'
  if (ends) return 'start'
  return kind === 'hang' || kind === 'loop' ? 'found' : 'never'
}

const loopsIn = ({ modes }: Family): readonly Mode[] =>
  modes.flatMap(({ id, kind }) => (kind === 'loop' ? [id] : []))

/** The device as it stands in each mode that it can be brought to, with the ways that were gone. */
export function reachedBy(
  family: Family,
  { nature, device }: Tried,
  permission: boolean,
): ReadonlyMap<Mode, Reached> {
  const system = { ...device, permission }
  const off = step(nature, system, { kind: 'power-off' }, system.at).device
  const reached = new Map<Mode, Reached>([
    [modeOfKind(family, 'system'), { device: system, ways: [] }],
    [off.mode, { device: off, ways: [] }],
  ])
  for (let before = 0; before < reached.size;) {
    before = reached.size
    for (const [at, way] of family.ways.entries()) {
      if (reached.has(way.to) || (way.needs !== undefined && !permission)) continue
      const there = gone(family, nature, way, [...reached.entries()])
      if (there !== undefined)
        reached.set(way.to, { device: there.device, ways: [...there.ways, at] })
    }
  }
  return reached
}

/** A way gone from the first mode in which it begins and leads where it says; undefined: from none. */
function gone(
  family: Family,
  nature: Nature,
  way: Way,
  reached: readonly (readonly [Mode, Reached])[],
): Reached | undefined {
  const input = inputOf(family, way)
  return reached
    .filter(([mode]) => beginsIn(way, mode))
    .map(([, { device, ways }]) => ({
      device: step(nature, device, input, device.at).device,
      ways,
    }))
    .find(({ device }) => device.mode === way.to)
}

/** What a way is, done to the twin. */
function inputOf(family: Family, { how, to }: Way): TwinInput {
  if (isKind(family, to, 'off')) return { kind: 'power-off' }
  return how === 'command' ? { kind: 'restart', epoch: 1, to } : { kind: 'keys', to }
}
