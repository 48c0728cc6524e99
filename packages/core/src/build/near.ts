/**
 * What a mistyped id was perhaps meant to be: ids that are known, and what look-alike characters put right make of it,
 * by how much had to be changed. Offered, never taken. Reads a grammar, a text and known ids; gives the nearest first.
 */
import type { Grammar } from './grammar.ts'
import { readBuild } from './grammar.ts'

export type Near = { readonly build: string; readonly changed: number }

/** What a change costs: a look-alike is hardly one, two neighbours exchanged are less than two. */
const LOOK_ALIKE = 0.3
const EXCHANGED = 0.7
const CHANGED = 1
/** More than this changed, and it is another id. */
const CHANGED_MOST = 2
const NEAR_MOST = 3

export function nearBuilds(
  grammar: Grammar,
  typed: string,
  known: readonly string[],
): readonly Near[] {
  const text = typed.trim()
  const read = readBuild(grammar, text)
  const meant = read.ok ? read.value.text : read.refusal.perhaps
  const pairs = pairsOf(grammar)
  return [...new Set([...(meant === undefined ? [] : [meant]), ...known])]
    .filter((build) => Math.abs(build.length - text.length) <= CHANGED_MOST && build !== text)
    .map((build) => ({ build, changed: changedBetween(text, build, pairs) }))
    .filter(({ changed }) => changed <= CHANGED_MOST)
    .sort((a, b) => a.changed - b.changed || (a.build < b.build ? -1 : 1))
    .slice(0, NEAR_MOST)
}

/** Pairs of characters that are taken for each other, and letters that differ in case alone. */
function pairsOf({ lookAlikes }: Grammar): (a: string, b: string) => boolean {
  const as = (one: string) => lookAlikes[one] ?? one
  return (a, b) => as(a) === as(b) || a.toLowerCase() === b.toLowerCase()
}

/** Weighted distance of two texts: changed, left out, put in, or two neighbours exchanged. */
function changedBetween(a: string, b: string, alike: (a: string, b: string) => boolean): number {
  const rows = Array.from({ length: a.length + 1 }, (_, i) =>
    Array.from({ length: b.length + 1 }, (_one, j) => (i === 0 ? j : j === 0 ? i : 0)),
  )
  const cell = (i: number, j: number): number => rows[i]?.[j] ?? Infinity
  for (let i = 1; i <= a.length; i += 1)
    for (let j = 1; j <= b.length; j += 1) {
      const [x = '', y = ''] = [a[i - 1], b[j - 1]]
      const swap = x === y ? 0 : alike(x, y) ? LOOK_ALIKE : CHANGED
      const turned = i > 1 && j > 1 && x === b[j - 2] && a[i - 2] === y
      const row = rows[i]
      if (row !== undefined)
        row[j] = Math.min(
          cell(i - 1, j) + CHANGED,
          cell(i, j - 1) + CHANGED,
          cell(i - 1, j - 1) + swap,
          turned ? cell(i - 2, j - 2) + EXCHANGED : Infinity,
        )
    }
  return cell(a.length, b.length)
}
