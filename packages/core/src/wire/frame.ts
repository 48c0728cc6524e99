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
export function encodeFrame(header: Readonly<Record<string, Json>>, payload = EMPTY): Uint8Array {
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

/** A decoder of one stream. */
export function frameDecoder(): Decoder {
  let rest: Uint8Array = EMPTY
  let consumed = 0
  return {
    push(bytes) {
      rest = rest.length === 0 ? bytes : joined(rest, bytes)
      const frames: Frame[] = []
      for (;;) {
        const next = readFrame(rest)
        if (next === undefined) return ok(frames)
        if (!next.ok) return refuse({ ...next.refusal, at: consumed })
        frames.push(next.value.frame)
        rest = rest.subarray(next.value.length)
        consumed += next.value.length
      }
    },
    waiting: () => rest.length,
  }
}

type Read = Result<{ frame: Frame; length: number }, Omit<BadFrame, 'at'>>

/** The first frame of the bytes; undefined when it is not whole yet. */
function readFrame(bytes: Uint8Array): Read | undefined {
  if (bytes.length < LENGTH_BYTES) return undefined
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const length = view.getUint32(0)
  if (length > HEADER_MAX) return refuse({ rule: 'header-too-long', value: length })
  const headerEnd = LENGTH_BYTES + length
  if (bytes.length < headerEnd) return undefined
  const header = parseHeader(bytes.subarray(LENGTH_BYTES, headerEnd))
  if (header === undefined) return refuse({ rule: 'header-not-json', value: length })
  const payload = header['payload'] ?? 0
  if (typeof payload !== 'number' || !(payload >= 0 && payload <= PAYLOAD_MAX))
    return refuse({ rule: 'payload-too-long', value: Number(payload) })
  const end = headerEnd + payload
  if (bytes.length < end) return undefined
  return ok({ frame: { header, payload: bytes.slice(headerEnd, end) }, length: end })
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

function joined(a: Uint8Array, b: Uint8Array): Uint8Array {
  const bytes = new Uint8Array(a.length + b.length)
  bytes.set(a)
  bytes.set(b, a.length)
  return bytes
}
