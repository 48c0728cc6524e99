/**
 * How long something takes and how much charge it costs: from this bench's own figures where there are
 * enough, else from the family's. Reads effects; gives ranges, with where they come from. Ranges, never
 * one false minute.
 */
import type { Effect } from '../effect/effect.ts'
import { effectOf } from '../effect/effect.ts'
import type { Family, PaceKey } from '../family/profile.ts'

const MIB = 1024 * 1024
/** Fewer measurements of one's own than this are no figure yet. */
export const OWN_LEAST = 5

export type Seconds = { readonly low: number; readonly high: number }

/** Figures of the book for one pace: MiB a second for paces by bytes, seconds for the others. */
export type OwnFigure = { readonly n: number; readonly low: number; readonly high: number }
export type OwnFigures = Readonly<Partial<Record<PaceKey, OwnFigure>>>

export type Pace = Seconds & {
  readonly source: 'family' | 'own' | 'plain'
  /** Measurements behind it; 0 for the family's. */
  readonly n: number
}

/** How long an effect lasts. Throws RangeError when the family names no such pace. */
export function paceOf(family: Family, { pace }: Pick<Effect, 'pace'>, own: OwnFigures = {}): Pace {
  if ('seconds' in pace) return { low: pace.seconds, high: pace.seconds, source: 'plain', n: 0 }
  const { first = [], ...last } = pace
  if (first.length > 0)
    return [...first, last].map((one) => paceOf(family, { pace: one }, own)).reduce(joined)
  const rule = family.pace[pace.key]
  if (rule === undefined) throw new RangeError(`${family.id}: no pace of ${pace.key}`)
  const mine = own[pace.key]
  const figure = mine !== undefined && mine.n >= OWN_LEAST ? mine : undefined
  const origin = figure === undefined ? { source: 'family', n: 0 } : { source: 'own', n: figure.n }
  if ('seconds' in rule) {
    const [low, high] = figure === undefined ? rule.seconds : [figure.low, figure.high]
    return { low, high, ...origin } as Pace
  }
  const [slow, fast] = figure === undefined ? rule.mibPerSecond : [figure.low, figure.high]
  const mib = pace.bytes / MIB
  return { low: mib / fast, high: mib / slow, ...origin } as Pace
}

/** One after the other: as sure as the less sure of the two. */
const joined = (a: Pace, b: Pace): Pace => ({
  ...(a.n < b.n ? a : b),
  low: a.low + b.low,
  high: a.high + b.high,
})

/**
 * Percent that effects may draw of a charge: all of them at their longest, the one that drains most a second time, and a
 * restart as the way out of wherever that left it.
 */
export function chargeDrawn(
  family: Family,
  effects: readonly Effect[],
  own: OwnFigures = {},
): number {
  const drains = effects.map((effect) => drainOf(family, effect, own))
  const drained = drains.reduce((total, one) => total + one, 0)
  return drawnWith(family, { drained, again: Math.max(0, ...drains) }, own)
}

/** The same of what was added up already: what is drained in all, and by the costliest step. */
export function drawnWith(
  family: Family,
  { drained, again }: { readonly drained: number; readonly again: number },
  own: OwnFigures = {},
): number {
  const out = again === 0 ? 0 : drainOf(family, effectOf(family, { kind: 'restart' }), own)
  return drained + again + out
}

/** Percent that must be there for what may be drawn: with the house's margin, and no less than its floor. */
export const chargeWith = (
  drawn: number,
  house: { readonly batteryMargin: number; readonly batteryFloor: number | null },
): number => Math.max(Math.ceil(drawn + house.batteryMargin), house.batteryFloor ?? 0)

/** Percent of charge an effect costs at its longest. */
export function drainOf(family: Family, effect: Effect, own: OwnFigures = {}): number {
  if (effect.drain === 'none') return 0
  return (paceOf(family, effect, own).high / 60) * family.drainPerMinute[effect.drain]
}

/** However often a phase was quick, nothing is stuck before this many seconds of silence. */
const SILENT_LEAST = 20
/** Phases that give no sign until they are done: the whole of them is silent. */
const SILENT_THROUGHOUT: readonly PaceKey[] = ['digest', 'restart']

/**
 * Seconds without any sign after which a phase is stuck: nine of ten own runs where the book knows, else
 * the family's figure; undefined: silence alone never makes it stuck (hands, a first start).
 */
export function silentLimit(
  family: Family,
  effect: Effect,
  own: OwnFigures = {},
): number | undefined {
  if (effect.hands) return undefined
  if ('seconds' in effect.pace) return SILENT_LEAST
  const { key } = effect.pace
  const told = family.silentSeconds[key]
  if (told === undefined) return undefined
  const { source, high } = paceOf(family, effect, own)
  const measured = source === 'own' && SILENT_THROUGHOUT.includes(key) ? high : undefined
  return Math.max(SILENT_LEAST, measured ?? told)
}

/** Sums ranges. */
export function sum(ranges: readonly Seconds[]): Seconds {
  return ranges.reduce<Seconds>(
    (total, { low, high }) => ({ low: total.low + low, high: total.high + high }),
    { low: 0, high: 0 },
  )
}

/** Whole minutes a range covers: the low end rounded down, the high end up. */
export const minutesOf = ({ low, high }: Seconds): Seconds => ({
  low: Math.floor(low / 60),
  high: Math.ceil(high / 60),
})
