/**
 * Branded numbers, so that a time is never mistaken for a count. Core never reads a clock: every
 * moment is an integer number of milliseconds that the caller passes in.
 */
declare const unit: unique symbol

/** Milliseconds since 1970-01-01T00:00Z, an integer. Which clock (shop or real) is said where used. */
export type Ms = number & { readonly [unit]: 'ms' }

/** Brands an integer as milliseconds. Throws RangeError for a fraction or a non-finite number. */
export function ms(value: number): Ms {
  if (!Number.isSafeInteger(value)) throw new RangeError(`not a whole number of ms: ${value}`)
  return value as Ms
}

/** Reads an ISO 8601 moment. Throws RangeError when it is none. */
export function msOf(iso: string): Ms {
  return ms(Date.parse(iso))
}

/** Writes a moment as ISO 8601 in UTC with milliseconds, the form used in the book and in exports. */
export function isoOf(at: Ms): string {
  return new Date(at).toISOString()
}
