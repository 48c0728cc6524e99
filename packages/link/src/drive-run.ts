/**
 * Driving a run on a real device: carries out, act by act, what the reducer's orders are in verbs of the link,
 * and reports what comes of them as events, one order at a time. The counterpart of core's drive on the twin:
 * the same reducer decides in both, and the same performance says what an order is.
 */
import type {
  Deed,
  DeviceEvent,
  DeviceFacts,
  FilePut,
  Hands,
  JournalEntry,
  Lead,
  Mode,
  Outcome,
  Put,
  RunEvent,
  RunOrder,
  RunState,
  Turn,
  Unleased,
} from '@plain-slate/core'
import { decodeRanges, leased, perform, reduce, tableText } from '@plain-slate/core'
import type { Address } from './address.ts'
import type { Lease, Link } from './link.ts'
import { LinkLost } from './link.ts'
import type { ImageBytes } from './piece.ts'
import { digestOf, putFile, putPiece } from './piece.ts'
import { waitFor } from './port.ts'

/** What somebody who watches is told. `at` is the device's own time, ms of model time. */
export type RunNews =
  | { readonly kind: 'turn'; readonly state: RunState }
  | { readonly kind: 'progress'; readonly got: number; readonly at: number }
  /** The device's own time, with an answer that tells nothing else. */
  | { readonly kind: 'time'; readonly at: number }
  | {
      readonly kind: 'waiting'
      readonly mode: Mode | undefined
      readonly seen: DeviceFacts | undefined
    }
  /** What it shows or asks, said by itself. */
  | { readonly kind: 'says'; readonly text: string }
  | { readonly kind: 'met'; readonly facts: DeviceFacts; readonly at: number }

export type RunSite = {
  readonly address: Address
  readonly secret: string
  readonly run: string
  readonly bytes: ImageBytes
  /** Whence the device is told into which mode. */
  readonly leads: readonly Lead[]
  /** Resolves when the entry is durable. */
  readonly journal: (entry: JournalEntry) => Promise<void>
  /** Resolves with who did it when it is done; undefined when the signal ended it. */
  readonly ask: (hands: Hands, index: number, signal: AbortSignal) => Promise<string | undefined>
  readonly tell: (news: RunNews) => void
}

export type Driving = {
  /** The state in which the run stands still, or was left. */
  readonly over: Promise<RunState>
  /** A person asks to stop: after the piece under way, at once where none is. */
  readonly stop: () => void
  /** Leaves the run as it is, as if this process had died. */
  readonly abandon: () => void
}

/** Between two looks at what it says of itself while pieces go over, in the device's time. */
const FACTS_EVERY_MS = 20_000

type Meeting = Extract<Deed, { deed: 'meet' }>

/** Drives from a turn. */
export function driveRun(turn: Turn, site: RunSite): Driving {
  const left = new AbortController()
  const driver = new Driver(turn.state, site, left.signal)
  left.signal.addEventListener('abort', () => driver.hangUp(), { once: true })
  const over = driver.run(turn.orders).finally(() => driver.hangUp())
  return { over, stop: () => driver.hear({ kind: 'stop' }), abandon: () => left.abort() }
}

class Driver {
  #state: RunState
  #link: Link | undefined
  /** Events that came while an order was under way: only a person's stop does. */
  readonly #heard: RunEvent[] = []
  #wake: (() => void) | undefined
  /** The device's time, as it told last, and as it told of itself last; ms. */
  #at = 0
  #factsAt = 0
  readonly #site: RunSite
  readonly #left: AbortSignal

  constructor(state: RunState, site: RunSite, left: AbortSignal) {
    this.#state = state
    this.#site = site
    this.#left = left
  }

  hear(event: RunEvent): void {
    this.#heard.push(event)
    this.#wake?.()
  }

  hangUp(): void {
    this.#link?.close()
    this.#link = undefined
  }

  async run(first: readonly RunOrder[]): Promise<RunState> {
    const orders: RunOrder[] = [...first]
    this.#site.tell({ kind: 'turn', state: this.#state })
    for (let order = orders.shift(); order !== undefined; order = orders.shift()) {
      const under = new AbortController()
      const leave = () => under.abort()
      this.#left.addEventListener('abort', leave, { once: true })
      const event = await this.#whileHearing(this.#carryOut(order, under.signal), under)
      this.#left.removeEventListener('abort', leave)
      if (this.#left.aborted || event === undefined) return this.#state
      orders.push(...this.#take(event))
    }
    return this.#state
  }

  /** Takes events that come while the order is under way; one that ends the run ends the order. */
  async #whileHearing(
    order: Promise<RunEvent | undefined>,
    under: AbortController,
  ): Promise<RunEvent | undefined> {
    const carried = { out: false }
    const settled = () => {
      carried.out = true
      this.#wake?.()
    }
    void order.then(settled, settled)
    for (;;) {
      for (let event = this.#heard.shift(); event !== undefined; event = this.#heard.shift()) {
        this.#take(event)
        if (this.#state.phase.kind !== 'stopped') continue
        /* Nothing is being written: whatever is waited for or read is let go. */
        under.abort()
        this.hangUp()
      }
      if (carried.out || under.signal.aborted) return order
      await new Promise<void>((resolve) => {
        this.#wake = resolve
        under.signal.addEventListener('abort', () => resolve(), { once: true })
      })
    }
  }

  #take(event: RunEvent): readonly RunOrder[] {
    const turn = reduce(this.#state, event)
    this.#state = turn.state
    this.#site.tell({ kind: 'turn', state: turn.state })
    return turn.orders
  }

  get #lease(): Lease {
    return { run: this.#site.run, epoch: this.#state.epoch }
  }

  /** An order act by act; whatever is lost on the way loses the link. */
  async #carryOut(order: RunOrder, signal: AbortSignal): Promise<RunEvent | undefined> {
    const { leads } = this.#site
    const standing = { linked: this.#link !== undefined, serial: this.#state.serial, leads }
    const deeds = perform(order, standing)
    let next = deeds.next()
    while (next.done !== true) next = deeds.next(await this.#did(next.value, signal))
    return next.value
  }

  async #did(deed: Deed, signal: AbortSignal): Promise<Outcome> {
    try {
      return await this.#done(deed, signal)
    } catch (error) {
      if (!(error instanceof LinkLost)) throw error
      const came = this.#link === undefined ? 'unlinked' : 'lost'
      this.hangUp()
      return { came }
    }
  }

  async #done(deed: Deed, signal: AbortSignal): Promise<Outcome> {
    switch (deed.deed) {
      case 'write-down':
        await this.#site.journal(deed.entry)
        return { came: 'done' }
      case 'meet':
        return this.#meet(deed, signal)
      case 'leave':
        this.hangUp()
        return { came: 'done' }
      case 'ask':
        return this.#ask(deed.request)
      case 'piece':
        return this.#put(deed.piece)
      case 'file':
        return this.#putFile(deed.file)
      case 'compare':
        return this.#compare(deed.piece)
      case 'table':
        return this.#table()
      case 'hands': {
        const by = await this.#site.ask(deed.hands, this.#state.next, signal)
        return by === undefined ? { came: 'left' } : { came: 'hands', by }
      }
    }
  }

  async #meet({ mode, or }: Meeting, signal: AbortSignal): Promise<Outcome> {
    this.hangUp()
    const { address, secret } = this.#site
    const hears = (event: DeviceEvent) => this.#site.tell({ kind: 'says', text: event.text })
    const wanted = { serial: this.#state.serial, mode, or, hears }
    const seen = (facts: DeviceFacts | undefined) =>
      this.#site.tell({ kind: 'waiting', mode, seen: facts })
    seen(undefined)
    const met = await waitFor(address, this.#lease, secret, wanted, seen, signal)
    if (met === undefined) return { came: 'left' }
    if (met.kind === 'superseded') return { came: 'refused', code: 'old-epoch' }
    this.#link = met.link
    const { facts, at } = met
    this.#factsAt = at
    this.#site.tell({ kind: 'met', facts, at })
    return { came: 'facts', facts }
  }

  #open(): Link {
    if (this.#link === undefined) throw new LinkLost('not connected')
    return this.#link
  }

  async #ask(request: Unleased): Promise<Outcome> {
    const { answer } = await this.#open().ask(leased(request, this.#lease))
    if (answer.answer === 'refused') return { came: 'refused', code: answer.code }
    if (answer.answer !== 'facts') {
      this.#site.tell({ kind: 'time', at: answer.at })
      return { came: 'answer', answer }
    }
    this.#factsAt = answer.at
    this.#site.tell({ kind: 'met', facts: answer.facts, at: answer.at })
    return { came: 'facts', facts: answer.facts }
  }

  async #table(): Promise<Outcome> {
    const { answer, payload } = await this.#open().ask({ verb: 'table' })
    if (answer.answer === 'refused') return { came: 'refused', code: answer.code }
    if (answer.answer !== 'table') return { came: 'lost' }
    const { sectorBytes, diskBytes } = answer
    let from = 0
    const ranges = answer.ranges.map(({ at, length }) => {
      from += length
      return { at, bytes: payload.subarray(from - length, from) }
    })
    const decoded = decodeRanges(diskBytes, sectorBytes, ranges)
    return { came: 'table', table: decoded.ok ? tableText(decoded.value.table) : undefined }
  }

  readonly #progress = (got: number, at: number) => {
    this.#at = at
    this.#site.tell({ kind: 'progress', got, at })
  }

  /** In a long write its charge is asked for now and then; whoever is lost meanwhile is missed at the next command. */
  async #facts(): Promise<void> {
    if (this.#at - this.#factsAt < FACTS_EVERY_MS) return
    try {
      await this.#ask({ verb: 'facts' })
    } catch (error) {
      if (!(error instanceof LinkLost)) throw error
    }
  }

  async #putFile(file: FilePut): Promise<Outcome> {
    const put = await putFile(this.#open(), this.#lease, file, this.#site.bytes, this.#progress)
    return put.kind === 'kept' ? { came: 'done' } : { came: 'refused', code: put.code }
  }

  async #put(piece: Put): Promise<Outcome> {
    const { bytes } = this.#site
    const put = await putPiece(this.#open(), this.#lease, piece, bytes, this.#progress)
    await this.#facts()
    return put.kind === 'kept' ? { came: 'done' } : { came: 'refused', code: put.code }
  }

  /** The device's digest of the range against the image's. */
  async #compare({ partition, offset, size, image }: Put): Promise<Outcome> {
    const [from, to] = [offset, offset + size]
    const wanted = await digestOf(this.#site.bytes, image, from, to)
    const { answer } = await this.#open().ask({ verb: 'digest', partition, from, to })
    if (answer.answer === 'refused') return { came: 'refused', code: answer.code }
    return { came: 'compared', equal: answer.answer === 'digest' && answer.sha256 === wanted }
  }
}
