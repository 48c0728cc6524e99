/**
 * The near end of a device's stream: requests with an id, answers that refer to it. What does not come
 * because the stream ended is a `LinkLost`, whoever waited for it.
 */
import type { Duplex } from 'node:stream'
import type { ZodError } from 'zod'
import type { DeviceEvent, Frame, Json, LinkAnswer, LinkRequest } from '@plain-slate/core'
import {
  LINK_PROTOCOL,
  answerSchema,
  encodeFrame,
  eventSchema,
  frameDecoder,
} from '@plain-slate/core'

/** The stream ended, or what came on it was no answer. */
export class LinkLost extends Error {
  override readonly name = 'LinkLost'
  /** What was wrong with an answer that came; undefined: none came. */
  readonly odd: string | undefined

  constructor(why: string, odd?: string) {
    super(why)
    this.odd = odd
  }
}

export type Answered = { readonly answer: LinkAnswer; readonly payload: Uint8Array }

/** A request that was sent; its answer comes, or is lost. */
export type OnTheWay = { readonly answered: Promise<Answered> }

export type Link = {
  /** Sends a request, waiting for room on the stream; the answer comes later. */
  readonly send: (request: LinkRequest, payload?: Uint8Array) => Promise<OnTheWay>
  /** Sends and waits for the answer. Throws LinkLost. */
  readonly ask: (request: LinkRequest, payload?: Uint8Array) => Promise<Answered>
  readonly close: () => void
}

/** Who speaks: every hello and every writing verb carries it. */
export type Lease = { readonly run: string; readonly epoch: number }

/** Hello must be answered by then. */
const HELLO_MS = 5000

type Waiting = { readonly take: (answered: Answered) => void; readonly lose: (why: Error) => void }

/** Hears what a device says without being asked. */
export type Hears = (event: DeviceEvent) => void

/** A link over an open stream. */
export function openLink(stream: Duplex, hears: Hears = () => undefined): Link {
  const decoder = frameDecoder()
  const waiting = new Map<number, Waiting>()
  let nextId = 1
  let lost: LinkLost | undefined
  const lose = (why: string, odd?: string) => {
    lost ??= new LinkLost(why, odd)
    for (const one of waiting.values()) one.lose(lost)
    waiting.clear()
    stream.destroy()
  }
  stream.on('close', () => lose('the stream ended'))
  stream.on('end', () => lose('the stream ended'))
  stream.on('error', (error) => lose(error.message))
  stream.on('data', (bytes: Uint8Array) => {
    const pushed = decoder.push(bytes)
    if (!pushed.ok) return lose('a frame that is none', pushed.refusal.rule)
    for (const frame of pushed.value) taken(frame)
  })

  function taken({ header, payload }: Frame): void {
    if (typeof header['event'] === 'string') {
      /* An event that is not known may be ignored; none of them answers anything. */
      const event = eventSchema.safeParse(header)
      if (event.success) hears(event.data)
      return
    }
    const parsed = answerSchema.safeParse(header)
    if (!parsed.success) return lose('an answer that is none', oddIn(parsed.error))
    waiting.get(parsed.data.id)?.take({ answer: parsed.data, payload })
    waiting.delete(parsed.data.id)
  }

  async function send(request: LinkRequest, payload?: Uint8Array): Promise<OnTheWay> {
    if (lost !== undefined) throw lost
    const id = nextId++
    const answered = new Promise<Answered>((take, reject) =>
      waiting.set(id, { take, lose: reject }),
    )
    answered.catch(() => undefined)
    const header = { ...(request as Record<string, Json>), id }
    if (!stream.write(encodeFrame(header, payload))) await roomOn(stream)
    return { answered }
  }
  return {
    send,
    ask: async (request, payload) => (await send(request, payload)).answered,
    close: () => lose('closed'),
  }
}

/** Where an answer goes against the link's schema, in a few words. */
function oddIn({ issues: [first] }: ZodError): string {
  return first === undefined ? '' : `${first.path.join('.')}: ${first.message}`.slice(0, 120)
}

/** Resolves when the stream takes more, or is over (then the answer is lost, and says so). */
const roomOn = (stream: Duplex): Promise<void> =>
  new Promise((resolve) => {
    const go = () => {
      stream.off('drain', go).off('close', go)
      resolve()
    }
    stream.once('drain', go).once('close', go)
    if (stream.destroyed) go()
  })

/** Hello; answers the device's facts or its refusal. Throws LinkLost. */
export async function hello(link: Link, lease: Lease, secret: string): Promise<LinkAnswer> {
  const late = setTimeout(() => link.close(), HELLO_MS)
  try {
    const request = { verb: 'hello', ...lease, protocol: LINK_PROTOCOL, secret } as const
    return (await link.ask(request)).answer
  } finally {
    clearTimeout(late)
  }
}
