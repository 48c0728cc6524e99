/** The digest by which a plan, or anything else made of JSON, is named: equal bytes, equal plans. */
import type { Json } from '../canon/canon.ts'
import { canonical } from '../canon/canon.ts'

/** SHA-256 of text as hex, passed in: core has none of its own. */
export type HexDigest = (text: string) => string

/** The digest of a value's canonical JSON. What JSON leaves out (undefined members) counts for nothing. */
export const digestOfJson = (value: unknown, sha256: HexDigest): string =>
  sha256(canonical(JSON.parse(JSON.stringify(value)) as Json))
