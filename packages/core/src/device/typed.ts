/**
 * A value that somebody typed for a fact. Reads the text and every family; gives the value as the fact takes
 * it, or why it is none and what was perhaps meant. Look-alike characters are told, never swapped in silence.
 */
import { readBuild } from '../build/grammar.ts'
import type { Family } from '../family/profile.ts'
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'
import type { Fact } from '../terms/device.ts'
import type { FactValue } from './identity.ts'

/** Facts whose values are whole numbers. */
export const NUMBERS: readonly Fact[] = [
  'storageGb',
  'release',
  'loaderVersion',
  'floor',
  'batteryPercent',
]

export type NotTyped = {
  readonly why: 'number' | 'grammar' | 'model'
  /** What was perhaps meant; empty: nobody can say. */
  readonly perhaps: string
}

export function readTyped(
  families: readonly Family[],
  fact: Fact,
  typed: string,
): Result<FactValue, NotTyped> {
  if (NUMBERS.includes(fact)) return numberIn(typed)
  if (fact === 'build') return buildIn(families, typed)
  return fact === 'model' ? modelIn(families, typed) : ok(typed)
}

function numberIn(typed: string): Result<FactValue, NotTyped> {
  const value = Number(typed)
  return Number.isSafeInteger(value) && value >= 0
    ? ok(value)
    : refuse({ why: 'number', perhaps: '' })
}

function buildIn(families: readonly Family[], typed: string): Result<FactValue, NotTyped> {
  const reads = families.map((family) => readBuild(family.build, typed))
  const read = reads.find((one) => one.ok)
  if (read?.ok === true) return ok(read.value.text)
  const perhaps = reads.flatMap((one) => (one.ok ? [] : [one.refusal.perhaps ?? '']))
  return refuse({ why: 'grammar', perhaps: perhaps.find((one) => one !== '') ?? '' })
}

/** A model nobody knows is a model still; one that looks like a known one is asked about. */
function modelIn(families: readonly Family[], typed: string): Result<FactValue, NotTyped> {
  const codes = families.flatMap(({ models }) => models.map(({ code }) => code))
  const perhaps = codes.find((code) => alike(code) === alike(typed) && code !== typed)
  return perhaps === undefined ? ok(typed) : refuse({ why: 'model', perhaps })
}

/** Characters that people take for each other, as one. */
const alike = (text: string): string =>
  text.toUpperCase().replace(/[O]/g, '0').replace(/[IL]/g, '1').replace(/S/g, '5')
