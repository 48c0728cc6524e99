/**
 * Where a fact can be read so that it is settled, and how long that takes from where the device is: its ways first, the
 * reading after them. Reads a profile, the readings there are and how far the device starts; gives places.
 */
import type { Reading, Trusting } from '../device/identity.ts'
import { identify } from '../device/identity.ts'
import { isKind } from '../family/modes.ts'
import type { Family, Way } from '../family/profile.ts'
import { trustOf } from '../family/profile.ts'
import { waysTo } from '../modes/ways.ts'
import type { Fact, Mode, Source } from '../terms/device.ts'
import { LETHAL_FACTS } from '../terms/device.ts'
import { ms } from '../units/units.ts'

/** The least that a reading takes, ways and all; seconds. */
const LEAST_SECONDS = 5

/** Where a device is, as far as that is known. */
export type Whereabouts = {
  /** The mode it is in; undefined: it may be in any. */
  readonly mode: Mode | undefined
  readonly permission: boolean
  /**
   * How far it starts: its system runs, it does not come so far, nothing of it does; undefined: nobody saw it start.
   */
  readonly starts?: 'system' | 'not' | 'dead' | undefined
}

export type Place = {
  readonly source: Source
  /** The mode in which it is read there; undefined: it stands on the housing. */
  readonly mode: Mode | undefined
  readonly where: string
  readonly trust: number
  /** The ways there, the longest of those it may need. */
  readonly ways: readonly Way[]
  /** Of the ways and the reading together, 5 at least. */
  readonly seconds: number
}

/** Every place from which a reading would settle a fact, the quickest first. */
export function placesFor(
  family: Family,
  {
    readings,
    fact,
    at,
  }: {
    readonly readings: readonly Reading[]
    readonly fact: Fact
    readonly at: Whereabouts
  },
): readonly Place[] {
  const told = (family.facts[fact] ?? []).filter(({ source }) =>
    wouldSettle(family, readings, fact, source),
  )
  return told
    .flatMap((one): readonly Place[] => {
      const { source, where } = one
      const place = { source, where, trust: trustOf(family, fact, source) }
      const seconds = Math.max(one.seconds, LEAST_SECONDS)
      if (one.modes === 'any') return [{ ...place, mode: undefined, ways: [], seconds }]
      return one.modes.flatMap((mode) => {
        const ways = worstWays(family, mode, at)
        if (ways === undefined) return []
        const all = ways.reduce((sum, way) => sum + way.seconds, one.seconds)
        return [{ ...place, mode, ways, seconds: Math.max(all, LEAST_SECONDS) }]
      })
    })
    .sort((a, b) => a.seconds - b.seconds || b.trust - a.trust)
}

/**
 * Whether a reading of this source would settle a fact as it stands: it says what others said, or what nobody did.
 * What kills nobody is judged on a weak source's word too.
 */
export function wouldSettle(
  family: Trusting,
  readings: readonly Reading[],
  fact: Fact,
  source: Source,
): boolean {
  const own = readings.filter((one) => one.fact === fact)
  const at = ms(Math.max(0, ...own.map((one) => one.at)) + 1)
  const said = new Set(own.map(({ value }) => value))
  const values = said.size === 0 ? ['?'] : [...said]
  return values.some((value) => {
    const one: Reading = { fact, value, source, at, mode: undefined, person: undefined }
    const { kind } = identify(family, [...own, one])[fact]
    return kind === 'settled' || (kind === 'told' && !LETHAL_FACTS.includes(fact))
  })
}

/** The shortest ways to a mode; from a mode that nobody knows the longest of them. Undefined: there may be none. */
function worstWays(family: Family, to: Mode, at: Whereabouts): readonly Way[] | undefined {
  if (at.starts === 'dead') return undefined
  const here = startable(family, at)
  if (here !== family && isKind(family, to, 'system')) return undefined
  const from = at.mode === undefined ? mayBeIn(family, at).map(({ id }) => id) : [at.mode]
  const each = from.map((mode) => waysTo(here, mode, to, at.permission))
  return each.reduce<readonly Way[] | undefined>(
    (worst, ways) =>
      worst === undefined || ways === undefined
        ? undefined
        : seconds(ways) > seconds(worst)
          ? ways
          : worst,
    [],
  )
}

/** The family without the ways into a system that does not start. */
const startable = (family: Family, { starts }: Whereabouts): Family =>
  starts === 'not'
    ? { ...family, ways: family.ways.filter(({ to }) => !isKind(family, to, 'system')) }
    : family

/** Modes in which a device may be of which nobody says more. */
const mayBeIn = ({ modes }: Family, { starts }: Whereabouts) =>
  modes.filter(({ kind }) => starts !== 'not' || kind !== 'system')

const seconds = (ways: readonly Way[]): number => ways.reduce((sum, way) => sum + way.seconds, 0)
