/**
 * The values that a fact may turn out to have, with their weights: those of the rows that are left, and for what no
 * row says the values that packages ask for and one that none does. Reads rows and manifests; gives values.
 */
import type { FactValue } from '../device/identity.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { generationFor } from '../firmware/manifest.ts'
import type { Fact } from '../terms/device.ts'
import { FLOOR_FACTS } from '../terms/device.ts'
import { floorFact } from '../wire/facts.ts'
import type { WeighedRow } from './rows.ts'
import { isRowFact } from './rows.ts'

export type WeighedValue = { readonly value: FactValue; readonly weight: number }

/** A text that no build is: it stands for every build that no package asks for. */
export const ANOTHER_BUILD = '?'
const given = (value: number | undefined): readonly number[] => (value === undefined ? [] : [value])

/** The values of a fact that a package asks for, or by which it is judged. */
export function askedBy(manifest: Manifest, fact: Fact): readonly FactValue[] {
  const { requires, images } = manifest
  if (fact === 'build') return requires.exactBuild === undefined ? [] : [requires.exactBuild]
  if (fact === 'loaderVersion') return [...given(requires.minLoader), ...given(requires.maxLoader)]
  if (!FLOOR_FACTS.includes(fact)) return []
  const roles = images.map(({ role }) => role)
  const under = roles.filter((role) => fact === floorFact('all') || fact === floorFact(role))
  return under.map((role) => generationFor(manifest, role))
}

/** One that no package asks for: another build; of what has an order one below the least, an older device. */
function another(fact: Fact, asked: readonly FactValue[]): readonly FactValue[] {
  if (fact === 'build') return [ANOTHER_BUILD]
  const numbers = asked.filter((one) => typeof one === 'number')
  return numbers.length === 0 ? [] : [Math.min(...numbers) - 1]
}

/** What a fact may turn out to be; empty where nobody can name its values. */
export function valuesFor(
  rows: readonly WeighedRow[],
  asked: ReadonlySet<FactValue>,
  fact: Fact,
): readonly WeighedValue[] {
  if (isRowFact(fact)) {
    const weights = new Map<FactValue, number>()
    for (const { row, weight } of rows)
      weights.set(row[fact], (weights.get(row[fact]) ?? 0) + weight)
    return [...weights].map(([value, weight]) => ({ value, weight }))
  }
  if (asked.size === 0) return []
  return [...asked, ...another(fact, [...asked])].map((value) => ({ value, weight: 1 }))
}
