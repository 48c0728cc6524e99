/**
 * Many ids put in order at once: each is read by tables made of the grammar once, and sorted by one number. Reads a
 * grammar and ids; gives them oldest first, those of one comparable set after the other, and what is no id at the end.
 */
import type { Grammar, Segment } from './grammar.ts'
import { PERIODS_MOST, readBuild } from './grammar.ts'

type Rule = Exclude<Segment, { kind: 'mark' }>
/** What a segment takes of a text from a place: how many characters, and its rank is put down; -1: nothing. */
type Taker = (text: string, at: number, took: { rank: number }) => number

const NOTHING = -1
const CODES = 128

function counter({ alphabet, width }: Extract<Rule, { kind: 'counter' }>): Taker {
  const values = new Int16Array(CODES).fill(-1)
  for (let index = 0; index < alphabet.length; index += 1)
    values[alphabet.charCodeAt(index)] = index
  return (text, at, took) => {
    let rank = 0
    for (let index = at; index < at + width; index += 1) {
      const digit = values[text.charCodeAt(index)] ?? -1
      if (digit < 0) return NOTHING
      rank = rank * alphabet.length + digit
    }
    took.rank = rank
    return width
  }
}

function word({ values }: Extract<Rule, { kind: 'word' }>): Taker {
  const longest = values
    .map((value, rank) => [value, rank] as const)
    .sort(([a], [b]) => b.length - a.length)
  return (text, at, took) => {
    for (const [value, rank] of longest)
      if (text.startsWith(value, at)) {
        took.rank = rank
        return value.length
      }
    return NOTHING
  }
}

const size = (rule: Rule): number =>
  rule.kind === 'word' ? rule.values.length : rule.alphabet.length ** rule.width

/** Place of an id among those it can be compared with, and which those are; undefined: it is none. */
export function keyIn(
  grammar: Grammar,
): (text: string) => { readonly set: number; readonly at: number } | undefined {
  const takers = grammar.segments.map((rule): readonly [string, Taker] =>
    rule.kind === 'mark'
      ? ['', (text, at) => (text.startsWith(rule.text, at) ? rule.text.length : NOTHING)]
      : [rule.name, rule.kind === 'counter' ? counter(rule) : word(rule)],
  )
  const rules = grammar.segments.filter((one): one is Rule => one.kind !== 'mark')
  /** How much one step of a segment weighs in a number made of several, the weightiest first. */
  const weights = (names: readonly string[]): readonly number[] => {
    const sizes = names.map((one) => {
      const rule = rules.find(({ name }) => name === one)
      return rule === undefined ? 1 : size(rule)
    })
    return sizes.map((_, index) => sizes.slice(index + 1).reduce((all, one) => all * one, 1))
  }
  const [order, alike] = [weights(grammar.order), weights(grammar.alike)]
  const inOrder = takers.map(([name]) => order[grammar.order.indexOf(name)] ?? 0)
  const inSet = takers.map(([name]) => alike[grammar.alike.indexOf(name)] ?? 0)
  const ends = periodsIn(grammar, takers)
  const took = { rank: 0 }
  return (text) => {
    let place = 0
    let [set, at] = [0, 0]
    for (let index = 0; index < takers.length; index += 1) {
      const length = takers[index]?.[1](text, place, took) ?? NOTHING
      if (length < 0 || !inYear(ends[index], text, place + length)) return undefined
      at += took.rank * (inOrder[index] ?? 0)
      set += took.rank * (inSet[index] ?? 0)
      place += length
    }
    return place === text.length ? { set, at } : undefined
  }
}

/** Of each segment the most that its last two digits may say; undefined: it counts no part of a year. */
const periodsIn = ({ periods = [] }: Grammar, takers: readonly (readonly [string, Taker])[]) =>
  takers.map(([name]) => {
    const period = periods.find(({ of }) => of === name)
    return period && PERIODS_MOST[period.unit]
  })

const ZERO = 48
const DIGITS = 10
function inYear(most: number | undefined, text: string, end: number): boolean {
  if (most === undefined) return true
  const number = (text.charCodeAt(end - 2) - ZERO) * DIGITS + text.charCodeAt(end - 1) - ZERO
  return number >= 1 && number <= most
}

/** Ids in order; those that are none stand at the end as they came. */
export function sortBuilds(grammar: Grammar, ids: readonly string[]): readonly string[] {
  const keyOf = keyIn(grammar)
  const none: string[] = []
  const sets = new Map<number, { readonly id: string; readonly at: number }[]>()
  for (const id of ids) {
    const key = keyOf(id) ?? keyWritten(grammar, keyOf, id)
    if (key === undefined) {
      none.push(id)
      continue
    }
    const there = sets.get(key.set)
    if (there === undefined) sets.set(key.set, [{ id, at: key.at }])
    else there.push({ id, at: key.at })
  }
  const inOrder = [...sets].sort(([a], [b]) => a - b).map(([, ones]) => ones)
  return [
    ...inOrder.flatMap((ones) => ones.sort((a, b) => a.at - b.at).map(({ id }) => id)),
    ...none,
  ]
}

/** One that is written otherwise is taken as what it is. */
function keyWritten(grammar: Grammar, keyOf: ReturnType<typeof keyIn>, id: string) {
  const read = readBuild(grammar, id)
  return read.ok ? keyOf(read.value.text) : undefined
}
