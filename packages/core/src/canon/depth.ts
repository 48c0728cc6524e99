/**
 * How deep a JSON text is nested, told before it is parsed: whatever walks a value walks it by calls, and calls have an
 * end. Reads bytes or text; builds nothing. A text that is no JSON is told some depth, and refused by its parser.
 */
const [QUOTE, ESCAPE] = [0x22, 0x5c]
const OPEN = [0x7b, 0x5b] as const
const SHUT = [0x7d, 0x5d] as const

/** Deeper than this nothing of ours is, nor of anybody whom we read. */
export const JSON_DEPTH_MOST = 64
/** What is wrong with a text that is, as it is told beside its place. */
export const TOO_DEEP = `nested deeper than ${JSON_DEPTH_MOST} levels`

/** Whether the text of these UTF-8 bytes is nested deeper than so many levels. */
export function isDeeper(bytes: Uint8Array, most = JSON_DEPTH_MOST): boolean {
  let depth = 0
  let inText = false
  for (let at = 0; at < bytes.length; at += 1) {
    const byte = bytes[at] ?? 0
    if (inText) {
      if (byte === ESCAPE) at += 1
      else if (byte === QUOTE) inText = false
    } else if (byte === QUOTE) inText = true
    else if (byte === OPEN[0] || byte === OPEN[1]) {
      depth += 1
      if (depth > most) return true
    } else if (byte === SHUT[0] || byte === SHUT[1]) depth -= 1
  }
  return false
}
