/**
 * What a device really is: readings weighed against each other. Reads readings, the family's trust and
 * when something was last written to it; gives per fact how it stands, with the weighing. Facts that the
 * board bears go by weight, facts that change by time, floors by the highest. Identity is computed each
 * time and never stored.
 */
import type { Ms } from '../units/units.ts'
import type { Family } from '../family/profile.ts'
import type { Fact, Mode, Source } from '../terms/device.ts'
import { FUSED, trustOf } from '../family/profile.ts'
import {
  FACTS,
  FIXED_FACTS,
  FLOOR_FACTS,
  LETHAL_FACTS,
  PASSING_FACTS,
  STARTED_FACTS,
  UNWRITTEN_FACTS,
} from '../terms/device.ts'

export type FactValue = string | number

/** One reading: a fact with its source, time, mode and person. */
export type Reading = {
  readonly fact: Fact
  readonly value: FactValue
  readonly source: Source
  readonly at: Ms
  readonly mode: Mode | undefined
  readonly person: string | undefined
}

/** One claimed value, with the sources that claim it (the newest reading of each) and their weight. */
export type Claim = {
  readonly value: FactValue
  readonly weight: number
  readonly sources: readonly Source[]
}

export type Standing =
  /** `doubted`: the fuses settle it by themselves, and others of weight disagree. */
  | {
      readonly kind: 'settled'
      readonly value: FactValue
      readonly claims: readonly Claim[]
      readonly doubted: boolean
    }
  /** Claimed by weak sources alone. */
  | { readonly kind: 'told'; readonly value: FactValue; readonly claims: readonly Claim[] }
  /** `weak`: no source of weight claims any of it. */
  | {
      readonly kind: 'contradicted'
      readonly claims: readonly Claim[]
      readonly weak: boolean
    }
  /** Read before something was written that could change it, or too long ago. The claims are history. */
  | { readonly kind: 'stale'; readonly claims: readonly Claim[] }
  | { readonly kind: 'missing' }
export const STANDINGS = ['settled', 'told', 'contradicted', 'stale', 'missing'] as const

/** A family as far as it says whom to trust. */
export type Trusting = Pick<Family, 'facts'>

export type Identity = Readonly<Record<Fact, Standing>>

/** A leading value needs this many times the runner-up's weight. */
const LEAD = 5
/** And at least one source of this trust; against fuses, others of this weight raise a doubt. */
const STRONG = 5

/** When the device was last changed, as far as facts read before are no longer so. */
export type Changed = {
  /** Something was written to it. */
  readonly writtenAt?: Ms | undefined
  /** Its system was started after something was written. */
  readonly startedAt?: Ms | undefined
  /** What was read before this is too old for what a device changes by itself. */
  readonly oldBefore?: Ms | undefined
}

/** How every fact stands. */
export function identify(
  family: Trusting,
  readings: readonly Reading[],
  changed: Changed = {},
): Identity {
  const standings = FACTS.map((fact) => [
    fact,
    standingOf(
      family,
      fact,
      readings.filter((reading) => reading.fact === fact),
      staleBefore(fact, changed),
    ),
  ])
  return Object.fromEntries(standings) as Identity
}

function staleBefore(fact: Fact, { writtenAt, startedAt, oldBefore }: Changed): Ms | undefined {
  if (UNWRITTEN_FACTS.includes(fact)) return undefined
  const changedAt = STARTED_FACTS.includes(fact) ? startedAt : writtenAt
  if (changedAt === undefined || oldBefore === undefined) return changedAt ?? oldBefore
  return changedAt > oldBefore ? changedAt : oldBefore
}

function standingOf(
  family: Trusting,
  fact: Fact,
  readings: readonly Reading[],
  writtenAt: Ms | undefined,
): Standing {
  if (FIXED_FACTS.includes(fact)) return weigh(family, fact, readings)
  const since = readings.filter(({ at }) => writtenAt === undefined || at >= writtenAt)
  const claims = claimsOf(family, fact, newestOfEach(since))
  if (claims.length === 0) {
    const history = claimsOf(family, fact, newestOfEach(readings))
    return history.length === 0 ? { kind: 'missing' } : { kind: 'stale', claims: history }
  }
  const trust = ({ source }: Reading) => trustOf(family, fact, source)
  const standing = FLOOR_FACTS.includes(fact)
    ? highest(readings, trust)
    : PASSING_FACTS.includes(fact)
      ? newest(since)
      : newest(since.filter((one) => trust(one) === Math.max(...since.map(trust))))
  if (standing === undefined) return { kind: 'missing' }
  const { value } = standing
  return trust(standing) >= STRONG
    ? { kind: 'settled', value, claims, doubted: false }
    : { kind: 'told', value, claims }
}

/** The later of two at one time is the later in the list. */
const newest = (readings: readonly Reading[]): Reading | undefined =>
  readings.reduce<Reading | undefined>(
    (best, one) => (best === undefined || one.at >= best.at ? one : best),
    undefined,
  )

/** A floor never falls: the highest that a source of weight ever read; else the highest that is told. */
function highest(
  readings: readonly Reading[],
  trust: (reading: Reading) => number,
): Reading | undefined {
  const strong = readings.filter((one) => trust(one) >= STRONG)
  const among = strong.length > 0 ? strong : readings
  return [...among].sort((a, b) => Number(b.value) - Number(a.value))[0]
}

/** A fact of the board: by the weight of who claims it. */
function weigh(family: Trusting, fact: Fact, readings: readonly Reading[]): Standing {
  const claims = claimsOf(family, fact, newestOfEach(readings))
  const fused = claims.find(({ sources }) =>
    sources.some((source) => trustOf(family, fact, source) >= FUSED),
  )
  if (fused !== undefined) {
    const others = claims.filter((claim) => claim !== fused)
    const against = others.reduce((sum, { weight }) => sum + weight, 0)
    const told = [fused, ...others]
    return { kind: 'settled', value: fused.value, claims: told, doubted: against >= STRONG }
  }
  const [leading, runnerUp] = claims
  if (leading === undefined) return { kind: 'missing' }
  const { value } = leading
  const trusts = leading.sources.map((source) => trustOf(family, fact, source))
  const strong = trusts.some((trust) => trust >= STRONG)
  if (runnerUp === undefined)
    return strong
      ? { kind: 'settled', value, claims, doubted: false }
      : { kind: 'told', value, claims }
  if (strong && leading.weight >= LEAD * runnerUp.weight)
    return { kind: 'settled', value, claims, doubted: false }
  const all = claims.flatMap(({ sources }) => sources)
  const weak = all.every((source) => trustOf(family, fact, source) < STRONG)
  return { kind: 'contradicted', claims, weak }
}

/** Of each source the newest reading stands; of two at one time the later in the list. */
function newestOfEach(readings: readonly Reading[]): readonly Reading[] {
  const newest = new Map<Source, Reading>()
  for (const reading of readings) {
    const before = newest.get(reading.source)
    if (before === undefined || reading.at >= before.at) newest.set(reading.source, reading)
  }
  return [...newest.values()]
}

function claimsOf(family: Trusting, fact: Fact, readings: readonly Reading[]): readonly Claim[] {
  const values = [...new Set(readings.map(({ value }) => value))]
  const claims = values.map((value) => {
    const sources = readings.filter((one) => one.value === value).map(({ source }) => source)
    const weight = sources.reduce((sum, source) => sum + trustOf(family, fact, source), 0)
    return { value, weight, sources }
  })
  return claims.sort(
    (a, b) => b.weight - a.weight || String(a.value).localeCompare(String(b.value)),
  )
}

/**
 * The values a fact may have: one when settled, or told where a mistake kills nobody; all claimed ones
 * when contradicted; none when missing or stale. A contradicted fact counts as missing unless every
 * claimed value gives the same verdict, and where a mistake kills and only weak sources claim anything, whatever they claim.
 */
export function valuesOf(identity: Identity, fact: Fact): readonly FactValue[] {
  const standing = identity[fact]
  switch (standing.kind) {
    case 'settled':
      return [standing.value]
    case 'told':
      return LETHAL_FACTS.includes(fact) ? [] : [standing.value]
    case 'contradicted':
      return standing.weak && LETHAL_FACTS.includes(fact)
        ? []
        : standing.claims.map(({ value }) => value)
    case 'stale':
    case 'missing':
      return []
  }
}

/** True when a fact has one value that can be judged on. */
export const isKnown = (identity: Identity, fact: Fact): boolean =>
  identity[fact].kind !== 'contradicted' && valuesOf(identity, fact).length === 1

/** The one value that can be judged on, or undefined. */
export const settled = (identity: Identity, fact: Fact): FactValue | undefined =>
  isKnown(identity, fact) ? valuesOf(identity, fact)[0] : undefined

/** What is claimed of a fact however weakly, where nobody says otherwise. */
export const toldOf = (identity: Identity, fact: Fact): FactValue | undefined => {
  const standing = identity[fact]
  return standing.kind === 'settled' || standing.kind === 'told' ? standing.value : undefined
}

/**
 * Whether somebody who looked at the board at this time saw what is told of it now: of every doubted fact
 * what the fuses say was read before, and nothing else was read since.
 */
export const saysAsSeen = (identity: Identity, readings: readonly Reading[], looked: Ms): boolean =>
  doubtedFacts(identity).every((fact) => {
    const own = readings.filter((one) => one.fact === fact)
    const says = ({ value }: Reading) => value === settled(identity, fact)
    return (
      own.some((one) => says(one) && one.at <= looked) &&
      own.every((one) => says(one) || one.at <= looked)
    )
  })

/** Facts that the fuses settle against others of weight: somebody is to look at the board. */
export const doubtedFacts = (identity: Identity): readonly Fact[] =>
  LETHAL_FACTS.filter((fact) => {
    const standing = identity[fact]
    return standing.kind === 'settled' && standing.doubted
  })
