/**
 * Driving a run on a real device: carries out the reducer's orders over the link and reports what comes
 * of them as events, one order at a time. The counterpart of core's drive on the twin; the same reducer
 * decides in both.
 */
import type {
  Command,
  DeviceFacts,
  DeviceRefusal,
  JournalEntry,
  LinkAnswer,
  LinkRequest,
  Mode,
  RunEvent,
  RunOrder,
  RunState,
  Turn,
} from '@plain-slate/core'
import { reduce } from '@plain-slate/core'
import type { Address } from './address.ts'
import type { Lease, Link } from './link.ts'
import { LinkLost } from './link.ts'
import type { ImageBytes } from './piece.ts'
import { digestOf, putPiece } from './piece.ts'
import { waitFor } from './port.ts'

type Restart = Extract<Command, { kind: 'restart' }>
type Told = Extract<Command, { kind: 'erase' | 'lock' | 'slot' }>

export type Person = Extract<Command, { kind: 'person' }>

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
  | { readonly kind: 'met'; readonly facts: DeviceFacts; readonly at: number }

export type RunSite = {
  readonly address: Address
  readonly secret: string
  readonly run: string
  readonly bytes: ImageBytes
  /** Resolves when the entry is durable. */
  readonly journal: (entry: JournalEntry) => Promise<void>
  /** Resolves with the evidence when the person has done it; undefined when the signal ended it. */
  readonly ask: (command: Person, index: number, signal: AbortSignal) => Promise<string | undefined>
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

  async #carryOut(order: RunOrder, signal: AbortSignal): Promise<RunEvent | undefined> {
    try {
      switch (order.kind) {
        case 'journal':
          await this.#site.journal(order.entry)
          return { kind: 'durable' }
        case 'connect':
          return await this.#connect(order.mode, 'met', signal)
        case 'look':
          return await this.#look(order.command)
        case 'send':
          return await this.#send(order.command, signal)
      }
    } catch (error) {
      if (!(error instanceof LinkLost)) throw error
      this.hangUp()
      return { kind: 'lost' }
    }
  }

  async #connect(
    mode: Mode | undefined,
    as: 'met' | 'facts',
    signal: AbortSignal,
  ): Promise<RunEvent | undefined> {
    this.hangUp()
    const { address, secret } = this.#site
    const wanted = { serial: this.#state.serial, mode }
    const seen = (facts: DeviceFacts | undefined) =>
      this.#site.tell({ kind: 'waiting', mode, seen: facts })
    seen(undefined)
    const met = await waitFor(address, this.#lease, secret, wanted, seen, signal)
    if (met === undefined) return undefined
    if (met.kind === 'superseded') return { kind: 'refused', code: 'old-epoch' }
    this.#link = met.link
    const { facts, at } = met
    this.#site.tell({ kind: 'met', facts, at })
    return { kind: as, facts }
  }

  #open(): Link {
    if (this.#link === undefined) throw new LinkLost('not connected')
    return this.#link
  }

  async #send(command: Command, signal: AbortSignal): Promise<RunEvent | undefined> {
    switch (command.kind) {
      case 'person':
        return this.#ask(command, signal)
      case 'meet':
        return this.#connect(command.mode, 'facts', signal)
      case 'facts':
        return this.#facts(signal)
      case 'digest': {
        const { partition, size } = command
        const { answer } = await this.#open().ask({ verb: 'digest', partition, from: 0, to: size })
        this.#site.tell({ kind: 'time', at: answer.at })
        return answer.answer === 'digest'
          ? { kind: 'digest', image: answer.sha256 }
          : refusal(answer)
      }
      case 'restart':
        return this.#restart(command, signal)
      case 'erase':
      case 'lock':
      case 'slot':
        return this.#tell(command)
      case 'tally':
        return this.#tally(signal)
      case 'put': {
        const { bytes, tell } = this.#site
        const progress = (got: number, at: number) => tell({ kind: 'progress', got, at })
        const put = await putPiece(this.#open(), this.#lease, command, bytes, progress)
        return put.kind === 'kept' ? { kind: 'done', evidence: 'kept' } : put
      }
    }
  }

  async #ask(command: Person, signal: AbortSignal): Promise<RunEvent | undefined> {
    const evidence = await this.#site.ask(command, this.#state.next, signal)
    return evidence === undefined ? undefined : { kind: 'done', evidence }
  }

  /** Facts over the open link; met anew where there is none (the first command of a run). */
  async #facts(signal: AbortSignal): Promise<RunEvent | undefined> {
    if (this.#link === undefined) return this.#connect(undefined, 'facts', signal)
    const { answer } = await this.#link.ask({ verb: 'facts' })
    if (answer.answer === 'facts')
      this.#site.tell({ kind: 'met', facts: answer.facts, at: answer.at })
    return answer.answer === 'facts' ? { kind: 'facts', facts: answer.facts } : refusal(answer)
  }

  /** A restart ends the stream; it is done when the device is met again in the wanted mode. */
  async #restart(command: Restart, signal: AbortSignal): Promise<RunEvent | undefined> {
    const { to, first } = command
    if (this.#link === undefined) {
      const met = await this.#connect(undefined, 'facts', signal)
      const link = this.#link as Link | undefined
      if (link === undefined) return met
      if (met?.kind === 'facts' && met.facts.serial !== this.#state.serial) return met
    }
    const { answer } = await this.#open().ask({ verb: 'restart', ...this.#lease, to })
    if (answer.answer === 'refused') return refusal(answer)
    if (first !== 'wiped') return this.#connect(to, 'facts', signal)
    /* Nobody is heard before somebody has gone through the set-up: it is told to start, and no more. */
    this.hangUp()
    return { kind: 'done', evidence: 'told to start' }
  }

  /** A verb that the device carries out at once, and of which it says no more than that it is done. */
  async #tell(command: Told): Promise<RunEvent> {
    const { answer } = await this.#open().ask(verbOf(command, this.#lease))
    if (answer.answer !== 'done') return refusal(answer)
    this.#site.tell({ kind: 'time', at: answer.at })
    return { kind: 'done', evidence: command.kind }
  }

  /** What can still be counted of the customer's; met first, where nobody is. */
  async #tally(signal: AbortSignal): Promise<RunEvent | undefined> {
    if (this.#link === undefined && (await this.#connect(undefined, 'facts', signal)) === undefined)
      return undefined
    const { answer } = await this.#open().ask({ verb: 'tally' })
    return answer.answer === 'tally' ? { kind: 'tally', items: answer.items } : refusal(answer)
  }

  /** Does the device hold the piece already? Its digest of the range against the image's. */
  async #look(command: Extract<Command, { kind: 'put' }>): Promise<RunEvent> {
    const { partition, offset, size, image } = command
    const [from, to] = [offset, offset + size]
    const wanted = await digestOf(this.#site.bytes, image, from, to)
    const { answer } = await this.#open().ask({ verb: 'digest', partition, from, to })
    if (answer.answer !== 'digest') return refusal(answer)
    return { kind: 'digest', image: answer.sha256 === wanted ? image : undefined }
  }
}

function verbOf(command: Told, lease: Lease): LinkRequest {
  switch (command.kind) {
    case 'erase':
      return { verb: 'erase', ...lease, partition: command.partition }
    case 'lock':
      return { verb: 'lock', ...lease, to: command.to }
    case 'slot':
      return { verb: 'slot', ...lease, slot: command.slot }
  }
}

function refusal(answer: LinkAnswer): { readonly kind: 'refused'; readonly code: DeviceRefusal } {
  if (answer.answer !== 'refused') throw new LinkLost('an answer out of turn')
  return { kind: 'refused', code: answer.code }
}
