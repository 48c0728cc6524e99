/**
 * Build ids: cut into named segments by a family's grammar, explained, put in order. Reads a grammar
 * (data of the family, never a regular expression) and a typed text; gives segments, or where and why
 * it is no id, with the look-alike characters put right where that makes one. Leaves out what a build
 * is good for.
 */
import { z } from 'zod'
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'

const name = z.string().min(1).max(24)

/**
 * A grammar's parts from left to right. `word`: one of the listed values. `counter`: `width` characters
 * of `alphabet`, whose order is the order of its digits. `mark`: punctuation that stands as it is.
 */
export const segmentSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('mark'), text: z.string().min(1).max(4) }),
  z.object({
    kind: z.literal('word'),
    name,
    values: z.array(z.string().min(1).max(12)).min(1).max(200),
  }),
  z.object({
    kind: z.literal('counter'),
    name,
    alphabet: z.string().min(2).max(64),
    width: z.int().min(1).max(12),
  }),
])
export type Segment = z.infer<typeof segmentSchema>

/**
 * A counter of parts of a year: weeks as ISO 8601 counts them (01 to 53), or fortnights (01 to 27). Its year, of this
 * century, is the segment named, or stands before the number in the same one.
 */
export const periodSchema = z.object({
  of: name,
  unit: z.enum(['week', 'fortnight']),
  year: z.exactOptional(name),
})
export type Period = z.infer<typeof periodSchema>

/**
 * `order`: segments by which two ids are put in order, the weightiest first. `alike`: segments that
 * must be equal for two ids to be comparable at all. `lookAlikes`: what people type for what stands
 * there ("O" for "0"). `notations`: other ways in which the maker writes the same id, each with the same named segments.
 */
export const grammarSchema = z.object({
  segments: z.array(segmentSchema).min(1).max(24),
  order: z.array(name).min(1),
  alike: z.array(name),
  lookAlikes: z.record(z.string().length(1), z.string().length(1)),
  periods: z.exactOptional(z.array(periodSchema)),
  notations: z.exactOptional(z.array(z.array(segmentSchema).min(1).max(24)).max(8)),
})
export type Grammar = z.infer<typeof grammarSchema>

/** An id cut up: each named segment with its text, in the order of the grammar. */
export type BuildId = {
  readonly text: string
  readonly segments: readonly { readonly name: string; readonly text: string }[]
}

/** Where an id breaks off: the character (from 0), the segment that was to come, and what it may be. */
export type NoBuild = {
  readonly at: number
  readonly segment: string
  readonly wanted: string
  /** The id it becomes with look-alike characters put right, if it does. */
  readonly perhaps: string | undefined
}

/** Reads an id as typed; surrounding blanks do not count, letter case does. */
export function readBuild(grammar: Grammar, typed: string): Result<BuildId, NoBuild> {
  const text = typed.trim()
  const cut = cutUp(grammar, text)
  const written = cut.ok ? cut : (otherwiseWritten(grammar, text) ?? cut)
  if (written.ok) return written
  const meant = Array.from(text, (letter) => grammar.lookAlikes[letter] ?? letter).join('')
  const again = meant === text ? cut : cutUp(grammar, putRight(grammar, text))
  return refuse({ ...written.refusal, perhaps: again.ok ? again.value.text : undefined })
}

function cutUp(grammar: Grammar, text: string): Result<BuildId, Omit<NoBuild, 'perhaps'>> {
  const segments: { name: string; text: string }[] = []
  let at = 0
  for (const segment of grammar.segments) {
    const taken = take(segment, text.slice(at))
    if (taken === undefined)
      return refuse({ at, segment: nameOf(segment), wanted: wantedOf(segment) })
    if (segment.kind !== 'mark') segments.push({ name: segment.name, text: taken })
    at += taken.length
  }
  if (at < text.length) return refuse({ at, segment: 'end', wanted: 'nothing more' })
  const odd = oddPeriod(grammar, segments)
  return odd === undefined ? ok({ text, segments }) : refuse(odd)
}

/** As the maker writes it elsewhere: the same segments, put into the order of the grammar. */
function otherwiseWritten(grammar: Grammar, text: string): Result<BuildId, never> | undefined {
  for (const segments of grammar.notations ?? []) {
    const cut = cutUp({ ...grammar, segments }, text)
    if (!cut.ok) continue
    const texts = grammar.segments.map((one) =>
      one.kind === 'mark' ? one.text : segmentOf(cut.value, one.name),
    )
    const again = cutUp(grammar, texts.join(''))
    if (again.ok) return again
  }
  return undefined
}

/** The most that a year has of each. */
export const PERIODS_MOST = { week: 53, fortnight: 27 } as const

/** The year of a period, of this century, and its number in that. */
export function periodIn(
  { of, year }: Period,
  textOf: (segment: string) => string,
): { readonly year: number; readonly number: number } {
  const text = textOf(of)
  const own = year === undefined ? text.slice(0, -PERIOD_DIGITS) : textOf(year)
  return { year: Number(own), number: Number(text.slice(-PERIOD_DIGITS)) }
}
const PERIOD_DIGITS = 2

/** A week or fortnight that no year has. */
function oddPeriod(
  grammar: Grammar,
  segments: BuildId['segments'],
): Omit<NoBuild, 'perhaps'> | undefined {
  const textOf = (segment: string) => segments.find((one) => one.name === segment)?.text ?? ''
  const odd = grammar.periods?.find((one) => {
    const { number } = periodIn(one, textOf)
    return number < 1 || number > PERIODS_MOST[one.unit]
  })
  if (odd === undefined) return undefined
  return {
    at: placeOf(grammar, segments, odd.of),
    segment: odd.of,
    wanted: `01 to ${PERIODS_MOST[odd.unit]}`,
  }
}

/** Where a segment begins, in characters from 0. */
function placeOf(grammar: Grammar, segments: BuildId['segments'], wanted: string): number {
  let at = 0
  for (const rule of grammar.segments) {
    if (rule.kind !== 'mark' && rule.name === wanted) return at
    at +=
      rule.kind === 'mark'
        ? rule.text.length
        : (segments.find((one) => one.name === rule.name)?.text.length ?? 0)
  }
  return at
}

/** What a segment takes from the front of the text; the longest word that fits wins. */
function take(segment: Segment, text: string): string | undefined {
  switch (segment.kind) {
    case 'mark':
      return text.startsWith(segment.text) ? segment.text : undefined
    case 'word': {
      const fitting = segment.values.filter((value) => text.startsWith(value))
      return fitting.sort((a, b) => b.length - a.length)[0]
    }
    case 'counter': {
      const digits = text.slice(0, segment.width)
      const whole = digits.length === segment.width
      return whole && [...digits].every((digit) => segment.alphabet.includes(digit))
        ? digits
        : undefined
    }
  }
}

/** Swaps a look-alike only where the segment does not allow what was typed. */
function putRight(grammar: Grammar, text: string): string {
  let at = 0
  let fixed = ''
  for (const segment of grammar.segments) {
    const swapped = Array.from(text.slice(at), (letter) => grammar.lookAlikes[letter] ?? letter)
    const taken = take(segment, text.slice(at)) ?? take(segment, swapped.join('')) ?? ''
    fixed += taken
    at += taken.length
  }
  return fixed + text.slice(at)
}

const nameOf = (segment: Segment): string => (segment.kind === 'mark' ? 'mark' : segment.name)

function wantedOf(segment: Segment): string {
  switch (segment.kind) {
    case 'mark':
      return segment.text
    case 'word':
      return segment.values.join(', ')
    case 'counter':
      return `${segment.width} of ${segment.alphabet}`
  }
}

export type Order = 'older' | 'same' | 'newer' | 'incomparable'

/** How `a` stands to `b`. Ids whose alike-segments differ have no order. */
export function orderBuilds(grammar: Grammar, a: BuildId, b: BuildId): Order {
  const alike = grammar.alike.every((one) => segmentOf(a, one) === segmentOf(b, one))
  if (!alike) return 'incomparable'
  for (const segment of grammar.order) {
    const by =
      rank(grammar, segment, segmentOf(a, segment)) - rank(grammar, segment, segmentOf(b, segment))
    if (by !== 0) return by < 0 ? 'older' : 'newer'
  }
  return 'same'
}

/** The text of a named segment; empty when the grammar has none of that name. */
export function segmentOf(build: BuildId, segment: string): string {
  return build.segments.find((one) => one.name === segment)?.text ?? ''
}

/** A segment's place in its order: a counter's number in its own base, a word's place in the list. */
export function rank(grammar: Grammar, segment: string, text: string): number {
  const rule = grammar.segments.find((one) => one.kind !== 'mark' && one.name === segment)
  if (rule?.kind === 'word') return rule.values.indexOf(text)
  if (rule?.kind !== 'counter') return 0
  return Array.from(text).reduce(
    (sum, digit) => sum * rule.alphabet.length + rule.alphabet.indexOf(digit),
    0,
  )
}

/** One segment of two ids side by side, for the ruler. */
export type RulerPart = {
  readonly name: string
  readonly from: string
  readonly to: string
  /** `deciding`: the segment that puts the two in order. */
  readonly mark: 'same' | 'deciding' | 'differs'
}

/** Two ids segment by segment, with the deciding one marked. */
export function ruler(grammar: Grammar, from: BuildId, to: BuildId): readonly RulerPart[] {
  const deciding = grammar.order.find((one) => segmentOf(from, one) !== segmentOf(to, one))
  return from.segments.map(({ name: segment, text }) => {
    const other = segmentOf(to, segment)
    const mark = text === other ? 'same' : segment === deciding ? 'deciding' : 'differs'
    return { name: segment, from: text, to: other, mark }
  })
}
