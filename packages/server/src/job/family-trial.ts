/** What a known family would do: tried once for as long as this version of it is known. */
import type { FamilyShown } from '@plain-slate/api'
import type { Family, Trial } from '@plain-slate/core'
import { trialOf } from '@plain-slate/core'

const tried = new WeakMap<Family, FamilyShown['trial']>()

/** The trial of a family that is known here. */
export function trialHere(family: Family): FamilyShown['trial'] {
  const known = tried.get(family) ?? asTold(trialOf(family))
  tried.set(family, known)
  return known
}

/** A trial as it is told. */
export const asTold = ({ starts, modes, parts, never }: Trial): FamilyShown['trial'] => ({
  starts: starts.map((one) => ('rules' in one ? { ...one, rules: [...one.rules] } : one)),
  modes: modes.map((one) => ({ ...one, ways: [...one.ways] })),
  parts: parts.map((one) => ({ ...one, parts: [...one.parts] })),
  never,
})
