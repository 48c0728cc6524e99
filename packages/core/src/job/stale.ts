/**
 * What a plan rests on, kept with it when it is taken, so that a change can be told in words. Reads the
 * case a plan was made from; gives its inputs by name, and what differs between two such lists. Whether
 * the plan itself differs is told by its digest, not by this.
 */
import type { FactValue, Identity } from '../device/identity.ts'
import { valuesOf } from '../device/identity.ts'
import { canonical } from '../canon/canon.ts'
import type { HouseRules } from '../match/house.ts'
import { HOUSE_QUESTIONS } from '../match/house.ts'
import type { Unheld } from '../match/rule.ts'
import type { Fact, Mode } from '../terms/device.ts'
import { neededFacts } from './needed.ts'

/** Inputs by name: facts, digests of partitions, the table, the mode, packages, the house. */
export type Basis = Readonly<Record<string, string>>
export type Change = { readonly what: string; readonly from: string; readonly to: string }

/** Facts that every plan outlives: they are looked at again when it is started. */
const PASSING: readonly Fact[] = ['batteryPercent']

/** Facts that no rule asks for and a plan leaves as they are. */
const BESIDES: readonly Fact[] = ['bootLock']

/** The inputs of a plan. `packages`: those it writes, with their state on the shelf. */
export function basisOf(at: Unheld, mode: Mode, packages: readonly string[]): Basis {
  const facts = [...neededFacts(at.family), ...BESIDES]
    .filter((fact) => !PASSING.includes(fact))
    .map((fact) => [`fact.${fact}`, textOf(at.identity, fact)])
  const digests = [...at.evidence].map(([partition, found]) => [
    `evidence.${partition}`,
    found.kind === 'digest' ? found.sha256.slice(0, 8) : found.version,
  ])
  const shelf = at.shelf
    .filter(({ key }) => packages.includes(key))

    .map(({ manifest, state }) => [`package.${manifest.title}`, state])
  return Object.fromEntries([
    ...facts,
    ...digests,
    ...shelf,
    ['family', versionOf(at.family)],
    ['mode', mode],
    ['table', at.table === undefined ? '' : 'read'],
    ['keepData', String(at.keepData)],
    ['things', at.placeless.join(', ')],
    ['intent', at.intent],
    ...HOUSE_QUESTIONS.map((what) => [`house.${what}`, textIn(at.house[what])]),
  ]) as Basis
}

/** A family as a plan remembers by which version of it it was decided. */
export const versionOf = ({ id, version }: Pick<Unheld['family'], 'id' | 'version'>): string =>
  `${id} ${version}`

/** A setting of the house as text. */
const textIn = (setting: HouseRules[keyof HouseRules]): string =>
  typeof setting === 'object' ? canonical(setting) : String(setting)

/** A settled fact's value; several where they contradict each other. */
const textOf = (identity: Identity, fact: Fact): string =>
  valuesOf(identity, fact)
    .map((value: FactValue) => String(value))
    .join(' / ')

/** What differs, in the order of the newer list: facts first. */
export function changesIn(before: Basis, now: Basis): readonly Change[] {
  const names = [...new Set([...Object.keys(now), ...Object.keys(before)])]
  return names.flatMap((what) => {
    const [from, to] = [before[what] ?? '', now[what] ?? '']
    return from === to ? [] : [{ what, from, to }]
  })
}
