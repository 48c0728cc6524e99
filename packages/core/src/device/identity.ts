/**
 * What a device really is: readings weighed against each other. Reads readings and the family's trust;
 * gives per fact whether it is settled, contradicted or missing, with the weighing. Identity is
 * computed each time and never stored.
 */
import type { Ms } from '../units/units.ts'
import type { Family } from '../family/profile.ts'
import type { Fact, Mode, Source } from '../terms/device.ts'
import { trustOf } from '../family/profile.ts'
import { FACTS } from '../terms/device.ts'

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
  | { readonly kind: 'settled'; readonly value: FactValue; readonly claims: readonly Claim[] }
  | { readonly kind: 'contradicted'; readonly claims: readonly Claim[] }
  | { readonly kind: 'missing' }

/** A family as far as it says whom to trust. */
export type Trusting = Pick<Family, 'facts'>

export type Identity = Readonly<Record<Fact, Standing>>

/** A leading value needs this many times the runner-up's weight. */
const LEAD = 5
/** And at least one source of this trust. */
const STRONG = 5

/** How every fact stands. Claims run heaviest first. */
export function identify(family: Trusting, readings: readonly Reading[]): Identity {
  const standings = FACTS.map((fact) => [
    fact,
    weigh(
      family,
      fact,
      readings.filter((reading) => reading.fact === fact),
    ),
  ])
  return Object.fromEntries(standings) as Identity
}

function weigh(family: Trusting, fact: Fact, readings: readonly Reading[]): Standing {
  const claims = claimsOf(family, fact, newestOfEach(readings))
  const [leading, runnerUp] = claims
  if (leading === undefined) return { kind: 'missing' }
  if (runnerUp === undefined) return { kind: 'settled', value: leading.value, claims }
  const strong = leading.sources.some((source) => trustOf(family, fact, source) >= STRONG)
  if (strong && leading.weight >= LEAD * runnerUp.weight)
    return { kind: 'settled', value: leading.value, claims }
  return { kind: 'contradicted', claims }
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
 * The values a fact may have: one when settled, all claimed ones when contradicted, none when missing.
 * A contradicted fact counts as missing unless every claimed value gives the same verdict.
 */
export function valuesOf(standing: Standing): readonly FactValue[] {
  switch (standing.kind) {
    case 'settled':
      return [standing.value]
    case 'contradicted':
      return standing.claims.map(({ value }) => value)
    case 'missing':
      return []
  }
}

/** A settled value, or undefined. */
export const settled = (identity: Identity, fact: Fact): FactValue | undefined => {
  const standing = identity[fact]
  return standing.kind === 'settled' ? standing.value : undefined
}
