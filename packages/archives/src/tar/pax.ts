/** Pax records: "length key=value\n", each saying its own length (POSIX.1-2001, pax interchange format). */

/** Reads the records of an extended header; undefined when one lies about its length. */
export function readPax(bytes: Uint8Array): ReadonlyMap<string, string> | undefined {
  const records = new Map<string, string>()
  const decode = new TextDecoder()
  let at = 0
  while (at < bytes.length) {
    const blank = bytes.indexOf(0x20, at)
    if (blank < 0 || blank - at > 10) return undefined
    const digits = decode.decode(bytes.subarray(at, blank))
    const length = Number(digits)
    if (!/^[0-9]+$/.test(digits) || length < blank - at + 3 || at + length > bytes.length)
      return undefined
    const record = bytes.subarray(blank + 1, at + length - 1)
    const equals = record.indexOf(0x3d)
    if (equals < 1 || bytes[at + length - 1] !== 0x0a) return undefined
    records.set(
      decode.decode(record.subarray(0, equals)),
      decode.decode(record.subarray(equals + 1)),
    )
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
