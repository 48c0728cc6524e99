/**
 * Keys of a file that its schema does not know: a misspelt one would be left out in silence, and what it says with it. Reads
 * what was written and the schema; gives each such place with the nearest key that is known there.
 */
import { z } from 'zod'

export type UnknownKey = {
  readonly path: readonly (string | number)[]
  readonly key: string
  /** Undefined: none is near. */
  readonly nearest: string | undefined
}

type Schema = z.core.$ZodType

/** Every key that no arm of the schema knows. */
export function unknownKeys(
  schema: Schema,
  value: unknown,
  path: readonly (string | number)[] = [],
): readonly UnknownKey[] {
  if (typeof value !== 'object' || value === null) return []
  const plain = armsOf(schema)
  if (Array.isArray(value)) {
    const elements = plain.flatMap((arm) =>
      arm instanceof z.ZodArray ? [arm.element] : arm instanceof z.ZodTuple ? arm.def.items : [],
    )
    return value.flatMap((one, at) => ofAny(elements, one, [...path, at]))
  }
  const records = plain.filter((arm) => arm instanceof z.ZodRecord)
  const objects = plain.filter((arm) => arm instanceof z.ZodObject)
  return Object.entries(value).flatMap(([key, one]) => {
    const under = [
      ...objects.flatMap(({ shape }) => (key in shape ? [shape[key] as Schema] : [])),
      ...records.map(({ def }) => def.valueType),
    ]
    if (under.length > 0) return ofAny(under, one, [...path, key])
    if (objects.length === 0) return []
    const known = objects.flatMap(({ shape }) => Object.keys(shape))
    return [{ path, key, nearest: nearestOf(key, known) }]
  })
}

/** Of several schemas that a value may be of, the one that knows most of it speaks. */
function ofAny(
  schemas: readonly Schema[],
  value: unknown,
  path: readonly (string | number)[],
): readonly UnknownKey[] {
  const [first = [], ...others] = schemas.map((one) => unknownKeys(one, value, path))
  return others.reduce((least, one) => (one.length < least.length ? one : least), first)
}

/** A schema without what wraps it, and each arm of a union by itself. */
function armsOf(schema: Schema): readonly Schema[] {
  const { def } = schema._zod as {
    def: { innerType?: Schema; options?: readonly Schema[]; in?: Schema }
  }
  if (def.options !== undefined) return def.options.flatMap(armsOf)
  const inner = def.innerType ?? def.in
  return inner === undefined ? [schema] : armsOf(inner)
}

/** Letters by which two keys may differ and still be meant for one another. */
const NEAR = 3

/** The word of these that one is nearest to, where it is near enough to be meant. */
export function nearestOf(key: string, known: readonly string[]): string | undefined {
  const [first] = known
    .map((one) => ({ one, far: distance(key.toLowerCase(), one.toLowerCase()) }))
    .sort((a, b) => a.far - b.far)
  return first !== undefined && first.far <= Math.min(NEAR, key.length / 2) ? first.one : undefined
}

/** How many letters are put, taken or changed to make one word of another (Levenshtein). */
function distance(one: string, other: string): number {
  let row = Array.from({ length: other.length + 1 }, (_, at) => at)
  for (const [at, letter] of [...one].entries()) {
    const next = [at + 1]
    for (const [to, wanted] of [...other].entries())
      next.push(
        Math.min(
          (row[to + 1] ?? 0) + 1,
          (next[to] ?? 0) + 1,
          (row[to] ?? 0) + (letter === wanted ? 0 : 1),
        ),
      )
    row = next
  }
  return row.at(-1) ?? 0
}
