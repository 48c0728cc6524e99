/**
 * Frames of the device link: 4 bytes big-endian header length, a UTF-8 JSON header, then as many
 * payload bytes as the header's `payload` says. Reads bytes in any cutting; gives whole frames, or why
 * the stream cannot go on. Lengths are checked before they are used.
 */
import type { Json } from '../canon/canon.ts'
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'

/** A header longer than this ends the stream: none of ours is. */
export const HEADER_MAX = 64 * 1024
/** A chunk's payload at most. */
export const PAYLOAD_MAX = 1024 * 1024
const LENGTH_BYTES = 4

export type Frame = {
  readonly header: Readonly<Record<string, Json>>
  readonly payload: Uint8Array
}

/** Why a stream ended: the byte of the stream at which the frame began, and the rule. */
export type BadFrame = {
  readonly at: number
  readonly rule: 'header-too-long' | 'header-not-json' | 'payload-too-long'
  readonly value: number
}

const EMPTY = new Uint8Array()

/** One frame as bytes. Throws RangeError past the limits: a caller's bug. */
export function encodeFrame(
  header: Readonly<Record<string, Json>>,
  payload: Uint8Array = EMPTY,
): Uint8Array {
  const told = payload.length === 0 ? header : { ...header, payload: payload.length }
  const text = new TextEncoder().encode(JSON.stringify(told))
  if (text.length > HEADER_MAX) throw new RangeError(`a header of ${text.length} bytes`)
  if (payload.length > PAYLOAD_MAX) throw new RangeError(`a payload of ${payload.length} bytes`)
  const bytes = new Uint8Array(LENGTH_BYTES + text.length + payload.length)
  new DataView(bytes.buffer).setUint32(0, text.length)
  bytes.set(text, LENGTH_BYTES)
  bytes.set(payload, LENGTH_BYTES + text.length)
  return bytes
}

export type Decoder = {
  /** Takes bytes; gives the frames that are whole now. After a refusal the stream is over. */
  readonly push: (bytes: Uint8Array) => Result<readonly Frame[], BadFrame>
  /** Bytes that wait for the rest of their frame. */
  readonly waiting: () => number
}

/** A decoder of one stream. Bytes are joined only when a frame is whole: a payload is copied once. */
export function frameDecoder(): Decoder {
  let parts: Uint8Array[] = []
  let held = 0
  let wanted = LENGTH_BYTES
  let consumed = 0
  return {
    push(bytes) {
      parts.push(bytes)
      held += bytes.length
      const frames: Frame[] = []
      if (held < wanted) return ok(frames)
      let rest = joined(parts, held)
      for (;;) {
        const next = readFrame(rest)
        if (!next.ok) return refuse({ ...next.refusal, at: consumed })
        if ('wants' in next.value) {
          wanted = next.value.wants
          break
        }
        frames.push(next.value.frame)
        rest = rest.subarray(next.value.length)
        consumed += next.value.length
      }
      parts = rest.length === 0 ? [] : [rest]
      held = rest.length
      return ok(frames)
    },
    waiting: () => held,
  }
}

type Read = Result<{ frame: Frame; length: number } | { wants: number }, Omit<BadFrame, 'at'>>

/** The first frame of the bytes; while it is not whole yet, how many bytes it wants at least. */
function readFrame(bytes: Uint8Array): Read {
  if (bytes.length < LENGTH_BYTES) return ok({ wants: LENGTH_BYTES })
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const length = view.getUint32(0)
  if (length > HEADER_MAX) return refuse({ rule: 'header-too-long', value: length })
  const headerEnd = LENGTH_BYTES + length
  if (bytes.length < headerEnd) return ok({ wants: headerEnd })
  const header = parseHeader(bytes.subarray(LENGTH_BYTES, headerEnd))
  if (header === undefined) return refuse({ rule: 'header-not-json', value: length })
  const payload = header['payload'] ?? 0
  if (typeof payload !== 'number' || !(payload >= 0 && payload <= PAYLOAD_MAX))
    return refuse({ rule: 'payload-too-long', value: Number(payload) })
  const end = headerEnd + payload
  if (bytes.length < end) return ok({ wants: end })
  return ok({ frame: { header, payload: bytes.subarray(headerEnd, end) }, length: end })
}

function parseHeader(bytes: Uint8Array): Record<string, Json> | undefined {
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes)
    const value: unknown = JSON.parse(text)
    const isObject = typeof value === 'object' && value !== null && !Array.isArray(value)
    return isObject ? (value as Record<string, Json>) : undefined
  } catch {
    return undefined
  }
}

function joined(parts: readonly Uint8Array[], length: number): Uint8Array {
  const [first] = parts
  if (first !== undefined && parts.length === 1) return first
  const bytes = new Uint8Array(length)
  let at = 0
  for (const part of parts) {
    bytes.set(part, at)
    at += part.length
  }
  return bytes
}
