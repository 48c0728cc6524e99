/**
 * A family profile: everything that is particular to one maker's line of devices, as data. Reads
 * YAML-made JSON; gives the checked profile and small questions to it. Adding a maker needs no code.
 */
import type { Fact, Source } from '../terms/device.ts'
import { FIXED_FACTS } from '../terms/device.ts'
import type { Profile } from './schema.ts'

export { ADOPTIONS, PACE_KEYS } from './words.ts'
export type { Adoption, PaceKey } from './words.ts'

export type Family = Profile
export type ModeProfile = Family['modes'][number]
export type Model = Family['models'][number]
export type Way = Family['ways'][number]
export type Driver = Family['drivers'][number]

/** A model by its code, or undefined. */
export const modelOf = (family: Family, code: string): Model | undefined =>
  family.models.find((model) => model.code === code)

/** Trust by source where the family says nothing else. */
const USUAL_TRUST: Readonly<Record<Source, number>> = {
  link: 8,
  screen: 5,
  settings: 5,
  rescue: 4,
  label: 2,
  box: 2,
  earlier: 2,
  person: 1,
}

/** Trust of ids that the link reads from the fuses: they settle a fact by themselves. */
export const FUSED = 12

/** Whether data of one track are not opened by a build of another. */
export const isTrackBack = (
  { dataKeys }: Pick<Family, 'dataKeys'>,
  from: string,
  to: string,
): boolean => dataKeys.tracksBack.some((one) => one.from === from && one.to === to)

/** How far a source is trusted for a fact on this family. */
export function trustOf(family: Pick<Family, 'facts'>, fact: Fact, source: Source): number {
  const told = family.facts[fact]?.find((one) => one.source === source)?.trust
  if (told !== undefined) return told
  return source === 'link' && FIXED_FACTS.includes(fact) ? FUSED : USUAL_TRUST[source]
}
