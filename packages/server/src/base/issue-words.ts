/**
 * What a schema has against a value, in words that name what stands there and what may. Reads an issue of Zod's and the
 * whole that was read; gives the place that is wrong, which of a choice is a place within, and the sentence.
 */
import type { z } from 'zod'
import { nearestOf } from './unknown-keys.ts'

type Issue = z.core.$ZodIssue
export type WrongWords = { readonly path: readonly PropertyKey[]; readonly message: string }

/** An issue in words. */
export function issueWords(issue: Issue, whole: unknown): WrongWords {
  const told = deepest(issue)
  return { path: told.path, message: wordsOf(told, valueAt(whole, told.path)) }
}

/** Of a value that may be of several shapes, what is wrong with it as the shape it comes nearest to. */
function deepest(issue: Issue): Issue {
  if (issue.code !== 'invalid_union' || issue.errors.length === 0) return issue
  const arms = issue.errors.map((errors) =>
    errors.map((one) => deepest({ ...one, path: [...issue.path, ...one.path] } as Issue)),
  )
  const choices = arms.flatMap((arm) => {
    const [only] = arm
    const here = only?.path.length === issue.path.length
    return arm.length === 1 && here && only.code === 'invalid_value' ? [only] : []
  })
  /* All of it a choice of words: every word that may stand there. */
  if (choices.length === arms.length)
    return {
      ...issue,
      code: 'invalid_value',
      values: choices.flatMap((one) => one.values),
    } as Issue
  const within = arms.filter((arm) => arm.every(({ path }) => path.length > issue.path.length))
  const [nearest] = within.sort(
    (one, other) => one.length - other.length || depthOf(other) - depthOf(one),
  )
  return nearest?.[0] ?? issue
}
const depthOf = (arm: readonly Issue[]): number => Math.max(...arm.map(({ path }) => path.length))

function wordsOf(issue: Issue, value: unknown): string {
  switch (issue.code) {
    case 'invalid_value':
      return noneOf(value, issue.values.map(String))
    case 'invalid_union': {
      const known = 'options' in issue ? optionsOf(issue.options) : []
      const key = 'discriminator' in issue ? String(issue.discriminator) : ''
      const own = key === '' || isText(value) ? value : valueAt(value, [key])
      if (known.length > 0) return noneOf(own, known)
      return `${shown(value)} may not stand here: ${mayStand(issue).join(', or ')}`
    }
    case 'invalid_type':
      return value === undefined
        ? `it is missing: write ${THINGS[issue.expected] ?? issue.expected}`
        : `${shown(value)} is not ${THINGS[issue.expected] ?? issue.expected}`
    case 'too_small':
      return `${shown(value)} is too ${issue.origin === 'array' ? 'few' : 'little'}: at least ${issue.minimum}`
    case 'too_big':
      return `${shown(value)} is too much: at most ${issue.maximum}`
    case 'unrecognized_keys':
    case 'invalid_format':
    case 'not_multiple_of':
    case 'invalid_key':
    case 'invalid_element':
    case 'custom':
      return issue.message
  }
}

/** What each shape of a choice asks for. */
const mayStand = (issue: Extract<Issue, { code: 'invalid_union' }>): readonly string[] =>
  issue.errors.flatMap(([first]) => {
    if (first?.code === 'invalid_type') return [THINGS[first.expected] ?? first.expected]
    return first?.code === 'invalid_value' ? [first.values.join(', ')] : []
  })

const optionsOf = (options: unknown): readonly string[] =>
  Array.isArray(options) ? options.map(String) : []

/** Names of what a place may hold, as they stand in a sentence. */
const THINGS: Readonly<Record<string, string>> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  tuple: 'two figures',
  object: 'a table',
  record: 'a table',
}

function noneOf(value: unknown, known: readonly string[]): string {
  const list = known.join(', ')
  if (value === undefined) return `it is missing: write one of ${list}`
  const near = isText(value) ? nearestOf(value, known) : undefined
  return near === undefined
    ? `${shown(value)} is none of ${list}`
    : `${shown(value)} is none of ${list}: ${near} is meant?`
}

const isText = (value: unknown): value is string => typeof value === 'string'
const SHOWN_MOST = 40
/** What stands there; that nothing does is told before. */
const shown = (value: unknown): string => {
  const text = isText(value) ? value : JSON.stringify(value)
  return `“${text.length > SHOWN_MOST ? `${text.slice(0, SHOWN_MOST)}…` : text}”`
}

function valueAt(whole: unknown, path: readonly PropertyKey[]): unknown {
  return path.reduce<unknown>(
    (value, key) =>
      typeof value === 'object' && value !== null
        ? (value as Record<PropertyKey, unknown>)[key]
        : undefined,
    whole,
  )
}
