/**
 * The reading that is worth most: the one fact that rules out most of what is left for the least effort. Reads a case,
 * how its candidates stand, the rows that are left and where the device is; gives readings, the best first.
 *
 * gain(f) = sum over v of p(v) x number of candidates, not yet out, that no longer fit once f is v; the best is the
 * largest gain a second. Where nothing can be ruled out it is the most that cannot be told, and would be, a minute.
 */
import type { FactValue, Reading } from '../device/identity.ts'
import { isKnown } from '../device/identity.ts'
import type { Shelved } from '../firmware/manifest.ts'
import type { Judgement } from '../match/judge.ts'
import type { Unheld } from '../match/rule.ts'
import { RULES } from '../match/rules.ts'
import type { Fact } from '../terms/device.ts'
import { FACTS, SERVICE_FACTS } from '../terms/device.ts'
import type { Finding } from '../verdict/verdict.ts'
import type { Place, Whereabouts } from './places.ts'
import { placesFor } from './places.ts'
import type { ClosedDevice, WeighedRow } from './rows.ts'
import { agreeing, settledBy } from './rows.ts'
import type { Places } from './ruled-out.ts'
import { fewRuledOut, ruledOut } from './ruled-out.ts'
import { ANOTHER_BUILD, askedBy, valuesFor } from './values.ts'

export type Probe = {
  readonly at: Unheld
  readonly readings: readonly Reading[]
  /** What could be the aim, as it is judged now; all of it is of the case's shelf. */
  readonly judged: readonly Judgement[]
  readonly closed: readonly ClosedDevice[]
  readonly where: Whereabouts
}

export type NextReading = {
  readonly fact: Fact
  readonly place: Place
  /** Of the candidates that are left, how many it is expected to rule out. */
  readonly gain: number
  /** The most and the least that a value of it would rule out. */
  readonly most: number
  readonly least: number
  readonly left: number
  /** Findings that cannot be told for want of it. */
  readonly tells: number
}

/** Every reading that would settle something, the best first. */
export function nextReadings(probe: Probe): readonly NextReading[] {
  const { at, readings, judged, closed, where } = probe
  const { family, identity } = at
  const ground = groundOf(probe, agreeing(family, identity, closed))
  const tellable = tellsOf(judged)
  const found = FACTS.flatMap((fact): readonly NextReading[] => {
    if (identity[fact].kind === 'settled') return []
    const [place] = placesFor(family, { readings, fact, at: where })
    if (place === undefined) return []
    const tells = tellable.get(fact) ?? 0
    const gained = gainOf(ground, fact)
    /* Of a shelf without a package nothing can be told, and the job wants it all the same. */
    const wanted = ground.left.length === 0 && NEEDED.includes(fact) && !isKnown(identity, fact)
    if (gained.most === 0 && tells === 0 && !wanted) return []
    return [{ fact, place, ...gained, left: ground.left.length, tells }]
  })
  const rules = found.some(({ gain }) => gain > 0)
  const worth = ({ gain, tells, place: { seconds } }: NextReading): number =>
    (rules ? gain : tells === 0 ? NEXT_TO_NOTHING : tells) / seconds
  return [...found].sort(
    (a, b) => worth(b) - worth(a) || b.place.trust - a.place.trust || a.fact.localeCompare(b.fact),
  )
}

/** Facts without which some rule cannot tell. */
const NEEDED = FACTS.filter(
  (fact) => !SERVICE_FACTS.includes(fact) && RULES.some(({ needs }) => needs.includes(fact)),
)
/** What the quickest reading is worth where no package waits for any. */
const NEXT_TO_NOTHING = 0.001

const isLeft = ({ verdict }: Judgement): boolean => verdict !== 'does-not-fit'

/** Findings on what is left that cannot be told for want of each fact. */
function tellsOf(judged: readonly Judgement[]): ReadonlyMap<Fact, number> {
  const tells = new Map<Fact, number>()
  const count = ({ verdict, remedy }: Finding): void => {
    if (verdict !== 'cannot-tell' || remedy?.kind !== 'read') return
    for (const fact of remedy.facts as readonly Fact[]) tells.set(fact, (tells.get(fact) ?? 0) + 1)
  }
  for (const one of judged) if (isLeft(one)) one.findings.forEach(count)
  return tells
}

type Ground = {
  readonly at: Unheld
  readonly rows: readonly WeighedRow[]
  readonly left: Places
}

function groundOf({ at, judged }: Probe, rows: readonly WeighedRow[]): Ground {
  const left = new Set(judged.filter(isLeft).map(({ shelved }) => shelved))
  const places = at.shelf.flatMap((one, place) => (left.has(one) ? [place] : []))
  return { at, rows, left: places }
}

type Gain = Pick<NextReading, 'gain' | 'most' | 'least'>
const NONE: Gain = { gain: 0, most: 0, least: 0 }

/** What a reading of a fact is expected to rule out. */
function gainOf(ground: Ground, fact: Fact): Gain {
  const askers = askersOf(ground, fact)
  const values = valuesFor(ground.rows, new Set(askers.keys()), fact)
  if (values.length === 0) return NONE
  const count = countingBy(ground, fact, askers)
  let [sum, all, most, least] = [0, 0, 0, Infinity]
  for (const { value, weight } of values) {
    const out = count(value)
    sum += weight * out
    all += weight
    most = Math.max(most, out)
    least = Math.min(least, out)
  }
  return { gain: sum / all, most, least }
}

/** Of what is left, packages by the values of a fact that they ask for. */
function askersOf({ at, left }: Ground, fact: Fact): ReadonlyMap<FactValue, Places> {
  const isLeftAt = new Set(left)
  const askers = [...allAskers(at.shelf, fact)].map(
    ([value, places]) => [value, places.filter((place) => isLeftAt.has(place))] as const,
  )
  return new Map(askers.filter(([, places]) => places.length > 0))
}

type Askers = ReadonlyMap<FactValue, Places>
const kept = new WeakMap<readonly Shelved[], Map<Fact, Askers>>()

/** The same of a whole shelf; made once for as long as the shelf is one. */
function allAskers(shelf: readonly Shelved[], fact: Fact): Askers {
  const own = kept.get(shelf) ?? new Map<Fact, Askers>()
  kept.set(shelf, own)
  const known = own.get(fact)
  if (known !== undefined) return known
  const askers = new Map<FactValue, number[]>()
  shelf.forEach(({ manifest }, place) => {
    for (const value of new Set(askedBy(manifest, fact))) {
      const those = askers.get(value)
      if (those === undefined) askers.set(value, [place])
      else those.push(place)
    }
  })
  own.set(fact, askers)
  return askers
}

/** How many of what is left a value rules out. */
function countingBy(
  { at, rows, left }: Ground,
  fact: Fact,
  askers: ReadonlyMap<FactValue, Places>,
): (value: FactValue) => number {
  const outOf = (value: FactValue, among: Places) =>
    ruledOut(at, settledBy(at.identity, rows, fact, value), among)
  if (fact !== 'build') return (value) => outOf(value, left).count
  /* A build is one that a package asks for, or as good as any other: who does not ask for it is out where all are. */
  const elsewhere = outOf(ANOTHER_BUILD, left)
  return (value) => {
    const own = askers.get(value) ?? []
    const others = elsewhere.count - own.filter(elsewhere.has).length
    return others + fewRuledOut(at, settledBy(at.identity, rows, fact, value), own)
  }
}
