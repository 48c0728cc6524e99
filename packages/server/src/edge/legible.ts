/**
 * Text that no table can keep, found or made harmless before anything reads it. Walks plain JSON values;
 * their depth and size are limited by whoever parsed them.
 */
import { isLegible, shownLegible } from '@plain-slate/core'

/** Where the first text with an illegible character stands, as a path; undefined: nowhere. */
export function illegibleAt(value: unknown, path = ''): string | undefined {
  if (typeof value === 'string') return isLegible(value) ? undefined : path
  if (typeof value !== 'object' || value === null) return undefined
  for (const [name, part] of Object.entries(value)) {
    const at = path === '' ? name : `${path}.${name}`
    const found = isLegible(name) ? illegibleAt(part, at) : path
    if (found !== undefined) return found
  }
  return undefined
}

/** The same value with illegible characters shown as such. */
export function madeLegible(value: unknown): unknown {
  if (typeof value === 'string') return isLegible(value) ? value : shownLegible(value)
  if (Array.isArray(value)) return value.map(madeLegible)
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(
    Object.entries(value).map(([name, part]) => [shownLegible(name), madeLegible(part)]),
  )
}
