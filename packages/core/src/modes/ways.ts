/**
 * Ways through a family's mode graph: the shortest from the mode a device is in to the one a step needs,
 * or to any that takes what is wanted.
 * Reads the family's ways and whether the link permission is given; gives the ways in order, or none.
 * Ties fall to the order in which the family names its ways.
 */
import { answersIn, beginsIn, isKind, takesIn } from '../family/modes.ts'
import type { Family, Way } from '../family/profile.ts'
import type { Mode, PartRole, Takes } from '../terms/device.ts'

/** The shortest ways, by seconds; empty when already there, undefined when there is none. */
export function waysTo(
  family: Family,
  from: Mode,
  to: Mode,
  permission: boolean,
): readonly Way[] | undefined {
  const usable = family.ways.filter((way) => way.needs === undefined || permission)
  const best = new Map<Mode, { readonly seconds: number; readonly ways: readonly Way[] }>([
    [from, { seconds: 0, ways: [] }],
  ])
  const better = (mode: Mode, way: Way): void => {
    const here = best.get(mode)
    const total = (here?.seconds ?? Infinity) + way.seconds
    if (here !== undefined && total < (best.get(way.to)?.seconds ?? Infinity))
      best.set(way.to, { seconds: total, ways: [...here.ways, way] })
  }
  for (let round = 0; round < family.modes.length; round += 1)
    for (const way of usable)
      for (const mode of [...best.keys()].filter((one) => beginsIn(way, one))) better(mode, way)
  return best.get(to)?.ways
}

/** The nearest mode that takes something for a part of this role, and the ways to it; undefined: no way. */
export function waysToTaking(
  family: Family,
  from: Mode,
  wanted: { readonly what: Takes; readonly role?: PartRole },
  permission: boolean,
): { readonly mode: Mode; readonly ways: readonly Way[] } | undefined {
  const there = family.modes.flatMap(({ id: mode }) => {
    const ways = takesIn(family, mode, wanted.what, wanted.role)
      ? waysTo(family, from, mode, permission)
      : undefined
    return ways === undefined ? [] : [{ mode, ways }]
  })
  return there.reduce<(typeof there)[number] | undefined>(
    (best, one) => (best === undefined || seconds(one.ways) < seconds(best.ways) ? one : best),
    undefined,
  )
}

/** A mode from which a device is told over its link into another. */
export type Lead = { readonly from: Mode; readonly to: Mode }

/**
 * The leads that a run may take by itself while it waits for a device in a mode. None out of a running system, which
 * may be its owner's again, and none into one: a start is a step of its plan and never tried again unasked.
 */
export const leadsOf = (family: Family): readonly Lead[] => {
  const isSystem = (mode: Mode) => isKind(family, mode, 'system')
  return family.ways
    .filter(({ hands, needs, to }) => !hands && needs === undefined && !isSystem(to))
    .flatMap((way) =>
      family.modes
        .map(({ id }) => id)
        .filter((from) => beginsIn(way, from) && answersIn(family, from) && !isSystem(from))
        .map((from) => ({ from, to: way.to })),
    )
}

/**
 * The shortest ways that somebody with the device in hand can go: what hands do, and where a run waits what it tells the
 * device on. Empty when already there, undefined when there is none.
 */
export function waysByHand(
  family: Family,
  from: Mode,
  to: Mode,
  permission: boolean,
): readonly Way[] | undefined {
  const leads = leadsOf(family)
  const ways = family.ways.flatMap((way): Way[] => {
    if (way.hands) return [way]
    const told = leads.filter((lead) => lead.to === way.to && beginsIn(way, lead.from))
    return told.length === 0 ? [] : [{ ...way, from: told.map((lead) => lead.from) }]
  })
  return waysTo({ ...family, ways }, from, to, permission)
}

const seconds = (ways: readonly Way[]): number => ways.reduce((sum, way) => sum + way.seconds, 0)
