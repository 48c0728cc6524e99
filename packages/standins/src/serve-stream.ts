/**
 * One stream to one device: frames in, frames out, in order. Hello with the secret comes first and soon,
 * or the stream ends. Works on any Node duplex stream, so on TCP and on a process's own pipes.
 */
import type { Duplex } from 'node:stream'
import type { Frame, Json, LinkRequest } from '@plain-slate/core'
import { LINK_PROTOCOL, LOOKING, encodeFrame, frameDecoder, requestSchema } from '@plain-slate/core'
import type { ModelClock } from './clock.ts'
import type { SimulatedDevice } from './device.ts'
import { REFUSAL_TEXTS } from './answers.ts'
import { Voice } from './device-events.ts'

/** Hello must have come by then. */
export const HELLO_MS = 2000
/** Frames that may wait; past it the stream is not read on. */
const WAITING_MAX = 16

export type Served = {
  readonly device: SimulatedDevice
  readonly clock: ModelClock
  readonly secret: string
  /**
   * Called when hello was right. A stream that owns the device ends any other; one that only looks is
   * let in while nobody owns it. Answers whether it may stay.
   */
  readonly met: (stream: Duplex, owns: boolean) => boolean
}

/** Serves until the stream ends, the device goes away, or rules are broken. */
export function serveStream(stream: Duplex, { device, clock, secret, met }: Served): void {
  const decoder = frameDecoder()
  const ended = new AbortController()
  const waiting: Frame[] = []
  let greeted = false
  let busy = false
  const voice = new Voice(device, (event) => void (isOver() || stream.write(encodeFrame(event))))
  const late = setTimeout(() => greeted || stream.destroy(), HELLO_MS)
  const close = () => {
    if (ended.signal.aborted) return
    ended.abort()
    clearTimeout(late)
    voice.falls()
    if (greeted) device.streamEnded()
  }
  stream.on('close', close).on('error', close)
  stream.on('end', () => stream.end())
  stream.on('data', (bytes: Uint8Array) => {
    const pushed = decoder.push(bytes)
    if (!pushed.ok) return void stream.destroy()
    if (isOver()) return
    waiting.push(...pushed.value)
    if (waiting.length > WAITING_MAX) stream.pause()
    void work()
  })

  const isOver = () => ended.signal.aborted || stream.writableEnded

  async function work(): Promise<void> {
    if (busy) return
    busy = true
    for (let frame = waiting.shift(); frame && !isOver(); frame = waiting.shift()) {
      await one(frame)
      if (waiting.length <= WAITING_MAX / 2 && stream.isPaused()) stream.resume()
    }
    busy = false
  }

  async function one({ header, payload }: Frame): Promise<void> {
    const id = typeof header['id'] === 'number' ? header['id'] : 0
    const parsed = requestSchema.safeParse(header)
    if (!parsed.success) return void stream.write(notKnown(id, device.model.at))
    const greeting = greeted ? 'in' : greet(parsed.data)
    if (greeting === 'out') return void stream.destroy()
    voice.waits()
    const handled = device.handle(parsed.data, payload, clock.now(device.model.at))
    await clock.until(handled.doneAt, ended.signal)
    voice.speaks()
    if (isOver()) return
    if (handled.ends !== 'instead')
      stream.write(encodeFrame({ ...json(handled.answer), id }, handled.payload))
    if (handled.ends !== 'no' || greeting === 'older') endSoftly(stream)
  }

  /** An older owner is told so by the device itself, and pushes no newer one off the cable. */
  function greet(request: LinkRequest): 'in' | 'older' | 'out' {
    if (!isGreeting(request, secret)) return 'out'
    const looks = request.epoch === LOOKING
    if (!looks && request.epoch < device.model.epoch) return 'older'
    if (!met(stream, !looks)) return 'out'
    greeted = true
    if (!looks) voice.rises()
    return 'in'
  }
}

const isGreeting = (
  request: LinkRequest,
  secret: string,
): request is Extract<LinkRequest, { verb: 'hello' }> =>
  request.verb === 'hello' && request.secret === secret && request.protocol === LINK_PROTOCOL

/** An answer to what is no verb of ours. */
function notKnown(id: number, at: number): Uint8Array {
  const code = 'unknown-verb'
  return encodeFrame({ answer: 'refused', id, at, code, text: REFUSAL_TEXTS[code] })
}

/** How long the far side may take to notice that a stream is over. */
const LINGER_MS = 1000

/** Ends a stream so that what was said already arrives: no more is heard, then it is destroyed. */
export function endSoftly(stream: Duplex): void {
  stream.end()
  stream.resume()
  setTimeout(() => stream.destroy(), LINGER_MS).unref()
}

const json = (answer: object): Record<string, Json> => answer as Record<string, Json>
