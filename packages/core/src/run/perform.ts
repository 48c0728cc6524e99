/**
 * What an order of a run is in verbs of the link: the one place that knows. Reads an order; says act by act what
 * whoever drives must do (ask the device, meet it, send a piece, call a person), is told what came of each, and
 * gives the event of the run. The rehearsal drives it on the twin, the agent over a link. Nothing here waits.
 */
import type { Command } from '../command/command.ts'
import type { Lead } from '../modes/ways.ts'
import type { Mode } from '../terms/device.ts'
import type { DeviceFacts } from '../wire/facts.ts'
import type { DeviceRefusal, LinkRequest, Said, Unleased } from '../wire/verbs.ts'
import type { JournalEntry } from './journal.ts'
import type { RunEvent, RunOrder } from './run.ts'

export type Put = Extract<Command, { kind: 'put' }>
export type FilePut = Extract<Command, { kind: 'copy' | 'push' }>
export type Hands = Extract<Command, { kind: 'person' }>

/** What whoever drives is to do next. */
export type Deed =
  | { readonly deed: 'write-down'; readonly entry: JournalEntry }
  /** Leave the link, and wait for the device: in this mode or one of the others, or in whichever. */
  | { readonly deed: 'meet'; readonly mode: Mode | undefined; readonly or: readonly Mode[] }
  | { readonly deed: 'leave' }
  | { readonly deed: 'ask'; readonly request: Unleased }
  | { readonly deed: 'piece'; readonly piece: Put }
  /** A whole file to a store of the device. */
  | { readonly deed: 'file'; readonly file: FilePut }
  /** Does the piece's range hold the image's bytes already? */
  | { readonly deed: 'compare'; readonly piece: Put }
  /** Read the partition table; the one that is wanted, for who has none of its own. */
  | { readonly deed: 'table'; readonly wanted: string }
  | { readonly deed: 'hands'; readonly hands: Hands }

/** What came of it. */
export type Outcome =
  | { readonly came: 'done' }
  | { readonly came: 'facts'; readonly facts: DeviceFacts }
  | { readonly came: 'answer'; readonly answer: Said }
  | { readonly came: 'table'; readonly table: string | undefined }
  | { readonly came: 'compared'; readonly equal: boolean }
  /** Who says that it is done. */
  | { readonly came: 'hands'; readonly by: string }
  | { readonly came: 'refused'; readonly code: DeviceRefusal }
  | { readonly came: 'lost' }
  | { readonly came: 'unlinked' }
  /** Nobody waits for it any more. */
  | { readonly came: 'left' }

/** The acts of an order, one after the other; at their end the event, or nothing where nobody waits for it. */
export type Performance = Generator<Deed, RunEvent | undefined, Outcome>

/** Whether the link is open, the serial number of the plan's device, and whence it is told into which mode. */
export type Linked = {
  readonly linked: boolean
  readonly serial: string
  readonly leads: readonly Lead[]
}

export function* perform(order: RunOrder, standing: Linked): Performance {
  switch (order.kind) {
    case 'journal':
      yield { deed: 'write-down', entry: order.entry }
      return { kind: 'durable' }
    case 'connect':
      return met(yield* awaited(order.mode, standing), 'met')
    case 'look': {
      const { command } = order
      const came = yield { deed: 'compare', piece: command }
      if (came.came !== 'compared') return plain(came)
      return { kind: 'digest', image: came.equal ? command.image : undefined }
    }
    case 'send':
      return yield* sent(order.command, standing)
  }
}

function* sent(command: Command, standing: Linked): Performance {
  switch (command.kind) {
    case 'person':
      return plain(yield { deed: 'hands', hands: command })
    case 'meet':
      return met(yield meeting(command.mode), 'facts')
    case 'facts':
      if (!standing.linked) return met(yield meeting(undefined), 'facts')
      return met(yield { deed: 'ask', request: { verb: 'facts' } }, 'facts')
    case 'put':
      return plain(yield { deed: 'piece', piece: command })
    case 'copy':
      return plain(yield { deed: 'file', file: command })
    case 'push': {
      const put = yield { deed: 'file', file: command }
      if (put.came !== 'done') return plain(put)
      const { store, name } = command
      return plain(yield { deed: 'ask', request: { verb: 'install', store, name } })
    }
    case 'prove-copy':
    case 'drop': {
      const { kind, store, name } = command
      const verb = kind === 'drop' ? 'file-drop' : 'file-digest'
      return plain(yield { deed: 'ask', request: { verb, store, name } })
    }
    case 'digest': {
      const { partition, size: to } = command
      return plain(yield { deed: 'ask', request: { verb: 'digest', partition, from: 0, to } })
    }
    case 'restart':
      return yield* restarted(command, standing)
    case 'tally': {
      const before = standing.linked ? undefined : yield meeting(undefined)
      if (before !== undefined && before.came !== 'facts') return plain(before)
      return plain(yield { deed: 'ask', request: { verb: 'tally' } })
    }
    case 'table':
      return plain(yield { deed: 'table', wanted: command.table })
    case 'erase':
    case 'lock':
    case 'slot':
    case 'permit':
    case 'merge':
      return plain(yield { deed: 'ask', request: requestOf(command) })
  }
}

/** A restart ends the stream; it is done when the device is met again in the wanted mode. */
function* restarted(
  { to, first }: Extract<Command, { kind: 'restart' }>,
  standing: Linked,
): Performance {
  const { linked, serial } = standing
  if (!linked) {
    const before = yield meeting(undefined)
    if (before.came !== 'facts' || before.facts.serial !== serial) return met(before, 'facts')
  }
  const said = yield { deed: 'ask', request: { verb: 'restart', to } }
  if (said.came !== 'answer') return plain(said)
  yield { deed: 'leave' }
  /* Wiped, nobody is heard before somebody has gone through the set-up: it is told to start, and no more. */
  if (first === 'wiped') return { kind: 'done', evidence: { is: 'told' } }
  return met(yield* awaited(to, standing), 'facts')
}

const meeting = (mode: Mode | undefined): Deed => ({ deed: 'meet', mode, or: [] })

/** As often as this a device that comes back elsewhere is told into its mode; after that it is waited for. */
export const TOLD_MOST = 3

/**
 * Waits for a device in a mode. Keys may bring it back no further than to a mode before that (its cell was out, and the
 * mode that writes is entered over the link alone): from there it is told on.
 */
function* awaited(
  mode: Mode | undefined,
  { serial, leads }: Linked,
): Generator<Deed, Outcome, Outcome> {
  const before = leads.filter(({ to }) => to === mode).map(({ from }) => from)
  for (let told = 0; ; told += 1) {
    const came = yield { deed: 'meet', mode, or: told < TOLD_MOST ? before : [] }
    if (came.came !== 'facts' || mode === undefined) return came
    if (came.facts.serial !== serial || !before.includes(came.facts.mode)) return came
    const said = yield { deed: 'ask', request: { verb: 'restart', to: mode } }
    if (said.came === 'refused') return said
    yield { deed: 'leave' }
  }
}

type Told = Extract<Command, { kind: 'erase' | 'lock' | 'slot' | 'permit' | 'merge' }>

/** A command that is one verb, and of which the device says no more than that it is done. */
function requestOf(command: Told): Unleased {
  switch (command.kind) {
    case 'erase':
      return { verb: 'erase', partition: command.partition }
    case 'lock':
      return { verb: 'lock', to: command.to }
    case 'merge':
      return { verb: 'merge', do: command.do }
    case 'permit':
      return { verb: 'permit', permit: command.permit }
    case 'slot':
      return { verb: 'slot', slot: command.slot }
  }
}

/** A meeting as an event: facts that were asked for, or a device met again. */
function met(came: Outcome, as: 'met' | 'facts'): RunEvent | undefined {
  return came.came === 'facts' ? { kind: as, facts: came.facts } : plain(came)
}

function plain(came: Outcome): RunEvent | undefined {
  switch (came.came) {
    case 'done':
      return { kind: 'done', evidence: { is: 'kept' } }
    case 'facts':
      return { kind: 'facts', facts: came.facts }
    case 'hands':
      return { kind: 'done', evidence: { is: 'person', by: came.by } }
    case 'refused':
      return { kind: 'refused', code: came.code }
    case 'table':
      return { kind: 'table', table: came.table }
    case 'answer':
      return eventOf(came.answer)
    case 'lost':
    case 'compared':
      return { kind: 'lost' }
    case 'unlinked':
      return { kind: 'unlinked' }
    case 'left':
      return undefined
  }
}

/** What a device answered, as an event of the run. */
function eventOf(answer: Said): RunEvent {
  switch (answer.answer) {
    case 'facts':
      return { kind: 'facts', facts: answer.facts }
    case 'digest':
      return { kind: 'digest', image: answer.sha256 }
    case 'tally':
      return { kind: 'tally', items: answer.items }
    case 'refused':
      return { kind: 'refused', code: answer.code }
    case 'kept':
    case 'done':
      return { kind: 'done', evidence: { is: answer.answer } }
    case 'mode':
      return { kind: 'done', evidence: { is: 'mode', mode: answer.mode } }
    case 'table':
    case 'files':
    case 'blocks':
    case 'bytes':
      return { kind: 'lost' }
  }
}

/** A request with the lease it is asked under, where its verb carries one. */
export const leased = (
  request: Unleased,
  lease: { readonly run: string; readonly epoch: number },
): LinkRequest => ({ ...request, ...lease }) as LinkRequest
