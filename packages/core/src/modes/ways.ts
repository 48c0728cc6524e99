/**
 * Ways through a family's mode graph: the shortest from the mode a device is in to the one a step needs.
 * Reads the family's ways and whether the link permission is given; gives the ways in order, or none.
 * Ties fall to the order in which the family names its ways.
 */
import type { Family, Way } from '../family/profile.ts'
import type { Mode } from '../terms/device.ts'

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
  for (let round = 0; round < family.modes.length; round += 1)
    for (const way of usable) {
      const here = best.get(way.from)
      const there = best.get(way.to)
      const seconds = (here?.seconds ?? Infinity) + way.seconds
      if (here !== undefined && seconds < (there?.seconds ?? Infinity))
        best.set(way.to, { seconds, ways: [...here.ways, way] })
    }
  return best.get(to)?.ways
}
