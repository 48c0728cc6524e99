/**
 * Canonical JSON after RFC 8785 (JSON Canonicalization Scheme): one text for one value, so that a
 * digest of it means the value. Reads plain JSON values; gives a string without white space, object
 * members sorted by UTF-16 code units. Leaves out members whose value is undefined, as JSON does.
 */
export type Json =
  null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json | undefined }

/** What canonical JSON cannot hold; thrown, since handing it in is a bug of the caller. */
export class NotCanonical extends Error {
  override readonly name = 'NotCanonical'
}

/**
 * The canonical text of a JSON value.
 * Throws NotCanonical for NaN, infinities and strings with a lone surrogate (RFC 8785, 3.2.2).
 */
export function canonical(value: Json): string {
  if (value === null || typeof value === 'boolean') return String(value)
  if (typeof value === 'number') return canonicalNumber(value)
  if (typeof value === 'string') return canonicalString(value)
  if (Array.isArray(value)) return `[${(value as readonly Json[]).map(canonical).join(',')}]`
  return canonicalObject(value as { readonly [key: string]: Json | undefined })
}

/** ECMAScript's own number text is what RFC 8785, 3.2.2.3 asks for; minus zero becomes 0. */
function canonicalNumber(value: number): string {
  if (!Number.isFinite(value)) throw new NotCanonical(`no JSON number: ${value}`)
  return JSON.stringify(value)
}

function canonicalString(value: string): string {
  if (SURROGATE.test(value) && LONE_SURROGATE.test(value))
    throw new NotCanonical('a string with half a surrogate pair')
  return JSON.stringify(value)
}

/** Most strings have none, and are not looked through for halves. */
const SURROGATE = /[\ud800-\udfff]/
const LONE_SURROGATE = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/

function canonicalObject(value: { readonly [key: string]: Json | undefined }): string {
  let members = ''
  for (const key of Object.keys(value).sort()) {
    const member = value[key]
    if (member === undefined) continue
    members += `${members === '' ? '' : ','}${canonicalString(key)}:${canonical(member)}`
  }
  return `{${members}}`
}
