/** Pax records: "length key=value\n", each saying its own length (POSIX.1-2001, pax interchange format). */

import { nameText } from './names.ts'

/** Records that say what an entry is called, and how many bytes follow; others would only take room. */
const MATTERS = /^(path|size|GNU\.sparse\..{1,20})$/

/** Reads the records of an extended header; undefined when one lies about its length. */
export function readPax(bytes: Uint8Array): ReadonlyMap<string, string> | undefined {
  const records = new Map<string, string>()
  let at = 0
  while (at < bytes.length) {
    const blank = bytes.indexOf(0x20, at)
    if (blank < 0 || blank - at > 10) return undefined
    const digits = nameText(bytes.subarray(at, blank))
    const length = Number(digits)
    if (!/^[0-9]+$/.test(digits) || length < blank - at + 3 || at + length > bytes.length)
      return undefined
    const record = bytes.subarray(blank + 1, at + length - 1)
    const equals = record.indexOf(0x3d)
    if (equals < 1 || bytes[at + length - 1] !== 0x0a) return undefined
    const key = nameText(record.subarray(0, equals))
    if (MATTERS.test(key)) records.set(key, nameText(record.subarray(equals + 1)))
    at += length
  }
  return records
}

/** A whole non-negative number of a record; undefined when it is none. */
export function paxNumber(text: string | undefined): number | undefined {
  if (text === undefined || !/^[0-9]{1,16}$/.test(text)) return undefined
  const value = Number(text)
  return Number.isSafeInteger(value) ? value : undefined
}

/** Later records over earlier ones; an empty value takes the earlier one back (POSIX.1-2001). */
export function mergePax(
  earlier: ReadonlyMap<string, string>,
  later: ReadonlyMap<string, string>,
): ReadonlyMap<string, string> {
  const merged = new Map(earlier)
  for (const [key, value] of later) {
    if (value === '') merged.delete(key)
    else merged.set(key, value)
  }
  return merged
}
