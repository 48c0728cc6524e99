/**
 * What the conformance suite works with: streams to one target, each met under a higher epoch than the last, and
 * the requests of its image.
 */
import { createHash, randomUUID } from 'node:crypto'
import { crc32 } from 'node:zlib'
import type { DeviceFacts, LinkAnswer } from '@plain-slate/core'
import { LINK_PROTOCOL } from '@plain-slate/core'
import type { Address } from './address.ts'
import { openStream } from './address.ts'
import type { Link } from './link.ts'
import { hello, openLink } from './link.ts'

export type Target = {
  readonly address: Address
  readonly secret: string
  /** An image that the device takes, and where. */
  readonly image: Uint8Array
  readonly partition: string
  /** The mode in which it takes it. */
  readonly mode: string
  /** A partition that is never written. */
  readonly never: string
  /** An epoch above all that the device has met; the suite goes up from it. */
  readonly epoch: number
}

export class Bench {
  readonly target: Target
  readonly digest: string
  serial = ''
  #epoch: number
  readonly #run = randomUUID()
  #open: Link[] = []

  constructor(target: Target) {
    this.target = target
    this.#epoch = target.epoch
    this.digest = sha256(target.image)
  }

  async begun(): Promise<void> {
    const facts = await this.facts()
    if (facts === undefined) throw new Error('no device answers')
    this.serial = facts.serial
    this.leave()
  }

  lease = () => ({ run: this.#run, epoch: this.#epoch })
  hello = () => ({
    verb: 'hello' as const,
    ...this.lease(),
    protocol: LINK_PROTOCOL,
    secret: this.target.secret,
  })
  begin = () => ({
    verb: 'begin' as const,
    ...this.lease(),
    partition: this.target.partition,
    offset: 0,
    size: this.target.image.length,
    image: this.digest,
  })
  chunk = (offset: number, size: number) => ({
    verb: 'chunk' as const,
    ...this.lease(),
    offset,
    crc32: crc32(this.bytes(offset, size)),
  })
  finish = () => ({ verb: 'finish' as const, ...this.lease(), piece: this.digest })
  bytes = (offset: number, size: number) => this.target.image.subarray(offset, offset + size)

  async open(): Promise<Link> {
    const stream = await openStream(this.target.address)
    if (stream === undefined) throw new Error('nothing is at this address')
    const link = openLink(stream)
    this.#open.push(link)
    return link
  }

  /** A stream that was greeted, at a higher epoch than the one before. */
  async meet(): Promise<Link> {
    this.#epoch += 1
    const link = await this.open()
    const answer = await hello(link, this.lease(), this.target.secret)
    if (answer.answer !== 'facts') throw new Error(`hello: ${refusalOf(answer)}`)
    return link
  }

  async facts(): Promise<DeviceFacts | undefined> {
    const link = await this.meet()
    const { answer } = await link.ask({ verb: 'facts' })
    return answer.answer === 'facts' ? answer.facts : undefined
  }

  leave(): void {
    for (const link of this.#open) link.close()
    this.#open = []
  }
}

export const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')

/** The code of a refusal, or what was answered instead. */
export const refusalOf = (answer: LinkAnswer | undefined): string =>
  answer === undefined ? 'no answer' : answer.answer === 'refused' ? answer.code : answer.answer
