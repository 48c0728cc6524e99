/**
 * A value that somebody typed for a fact. Reads the text, every family and the day it is; gives the value as the fact takes
 * it, or why it is none and what was perhaps meant. Look-alike characters are told, never swapped in silence.
 */
import { z } from 'zod'
import { readBuild } from '../build/grammar.ts'
import { nearBuilds } from '../build/near.ts'
import type { Family } from '../family/profile.ts'
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'
import type { Fact } from '../terms/device.ts'
import { FLOOR_FACTS, WORD_FACTS } from '../terms/device.ts'
import { looksAlike } from '../terms/text.ts'
import { isAhead } from '../units/patch-level.ts'
import type { FactValue } from './identity.ts'

/** Facts whose values are whole numbers. */
export const NUMBERS: readonly Fact[] = [
  'storageGb',
  'release',
  'loaderVersion',
  ...FLOOR_FACTS,
  'batteryPercent',
  'freeMiB',
]

const WORDS: Readonly<Partial<Record<Fact, readonly string[]>>> = WORD_FACTS

export type NotTyped = {
  readonly why: 'number' | 'percent' | 'date' | 'ahead' | 'grammar' | 'model' | 'word'
  /** What was perhaps meant, the nearest first; empty: nobody can say. */
  readonly perhaps: readonly string[]
  /** Of a build: the character at which it breaks off, from 1, and what may stand there. */
  readonly breaks?: { readonly at: number; readonly segment: string; readonly wanted: string }
}
/** Builds that are known of a family, by its id. */
export type KnownBuilds = ReadonlyMap<string, readonly string[]>

export function readTyped(
  families: readonly Family[],
  fact: Fact,
  typed: string,
  { known = new Map(), today }: { readonly known?: KnownBuilds; readonly today?: string } = {},
): Result<FactValue, NotTyped> {
  if (NUMBERS.includes(fact)) return fact === 'batteryPercent' ? percentIn(typed) : numberIn(typed)
  if (fact === 'patchDate') return dayIn(typed, today)
  const words = WORDS[fact]
  if (words !== undefined)
    return words.includes(typed) ? ok(typed) : refuse({ why: 'word', perhaps: words })
  if (fact === 'build') return buildIn(families, typed, known)
  return fact === 'model' ? modelIn(families, typed) : ok(typed)
}

function numberIn(typed: string): Result<FactValue, NotTyped> {
  const value = Number(typed)
  return Number.isSafeInteger(value) && value >= 0
    ? ok(value)
    : refuse({ why: 'number', perhaps: [] })
}

const FULL = 100
function percentIn(typed: string): Result<FactValue, NotTyped> {
  const value = numberIn(typed)
  return value.ok && Number(value.value) > FULL ? refuse({ why: 'percent', perhaps: [] }) : value
}

/** A day that is in the calendar, and not so far ahead that nobody can have made it yet. */
function dayIn(typed: string, today: string | undefined): Result<FactValue, NotTyped> {
  if (!z.iso.date().safeParse(typed).success) return refuse({ why: 'date', perhaps: [] })
  return today !== undefined && isAhead(typed, today)
    ? refuse({ why: 'ahead', perhaps: [] })
    : ok(typed)
}

const PERHAPS_MOST = 3
function buildIn(
  families: readonly Family[],
  typed: string,
  known: KnownBuilds,
): Result<FactValue, NotTyped> {
  const reads = families.map((family) => readBuild(family.build, typed))
  const read = reads.find((one) => one.ok)
  if (read?.ok === true) return ok(read.value.text)
  const near = families
    .flatMap(({ id, build }) => nearBuilds(build, typed, known.get(id) ?? []))
    .sort((a, b) => a.changed - b.changed)
  /* Of several families it is told of the one whose id it is for longest. */
  const [furthest] = reads
    .flatMap((one) => (one.ok ? [] : [one.refusal]))
    .sort((a, b) => b.at - a.at)
  return refuse({
    why: 'grammar',
    perhaps: near.slice(0, PERHAPS_MOST).map(({ build }) => build),
    ...(furthest === undefined
      ? {}
      : { breaks: { at: furthest.at + 1, segment: furthest.segment, wanted: furthest.wanted } }),
  })
}

/** A model nobody knows is a model still; one that looks like a known one is asked about. */
function modelIn(families: readonly Family[], typed: string): Result<FactValue, NotTyped> {
  const codes = families.flatMap(({ models }) => models.map(({ code }) => code))
  const perhaps = codes.find((code) => looksAlike(code, typed) && code !== typed)
  return perhaps === undefined ? ok(typed) : refuse({ why: 'model', perhaps: [perhaps] })
}
