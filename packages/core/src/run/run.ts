/**
 * The engine of a run as a pure reducer: state and event give state and orders. Whoever drives it (the
 * agent with a device, the rehearsal with the twin) carries out the orders and reports events. An
 * intention is durable before it is sent; what was in doubt is looked at before it is repeated; nothing
 * that cannot be repeated blindly is.
 */
import { z } from 'zod'
import type { Command } from '../command/command.ts'
import type { Mode } from '../terms/device.ts'
import type { DeviceFacts } from '../wire/facts.ts'
import { deviceFactsSchema } from '../wire/facts.ts'
import type { DeviceRefusal } from '../wire/verbs.ts'
import { REFUSALS } from '../wire/verbs.ts'
import type { JournalEntry } from './journal.ts'
import { followed } from './journal.ts'

export const stopReasonSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('wrong-device'), serial: z.string() }).readonly(),
  z.object({ kind: z.literal('refused'), code: z.enum(REFUSALS) }).readonly(),
  z.object({ kind: z.literal('not-equal'), partition: z.string() }).readonly(),
  z.object({ kind: z.literal('not-as-promised'), facts: deviceFactsSchema }).readonly(),
  z.object({ kind: z.literal('asked') }).readonly(),
  z.object({ kind: z.literal('superseded') }).readonly(),
  /** Something broke at the bench, not at the device: what it was, in its own words. */
  z.object({ kind: z.literal('fault'), what: z.string() }).readonly(),
  /** Its journal cannot be followed from this entry on (from 1): nobody can say what is in doubt. */
  z.object({ kind: z.literal('journal'), entry: z.int().positive() }).readonly(),
])
export type StopReason = z.infer<typeof stopReasonSchema>

export const phaseSchema = z.discriminatedUnion('kind', [
  /** Waits for the journal to be durable. */
  z.object({ kind: z.literal('writing-down'), what: z.enum(['intend', 'done']) }).readonly(),
  /** A command is on its way, or a person was asked. */
  z.object({ kind: z.literal('doing') }).readonly(),
  /** The link is gone; the command under way is in doubt. */
  z.object({ kind: z.literal('lost') }).readonly(),
  /** The device was met again; what it holds is being looked at. */
  z.object({ kind: z.literal('looking') }).readonly(),
  z.object({ kind: z.literal('stopped'), why: stopReasonSchema }).readonly(),
  z.object({ kind: z.literal('ended') }).readonly(),
])
export type Phase = z.infer<typeof phaseSchema>

export type RunState = {
  readonly serial: string
  readonly epoch: number
  readonly commands: readonly Command[]
  readonly next: number
  readonly phase: Phase
  /** A person asked to stop: at the next moment at which nothing is being written. */
  readonly stopping: boolean
  /** How often the command under way was lost. */
  readonly losses: number
}

export type RunEvent =
  | { readonly kind: 'durable' }
  | { readonly kind: 'done'; readonly evidence: string }
  | { readonly kind: 'facts'; readonly facts: DeviceFacts }
  | { readonly kind: 'digest'; readonly image: string | undefined }
  | { readonly kind: 'refused'; readonly code: DeviceRefusal }
  | { readonly kind: 'lost' }
  /** Met again: who it is, and how much of a begun piece it kept. */
  | { readonly kind: 'met'; readonly facts: DeviceFacts }
  | { readonly kind: 'stop' }

export type RunOrder =
  | { readonly kind: 'journal'; readonly entry: JournalEntry }
  | { readonly kind: 'send'; readonly command: Command }
  /** Meet the device again: in this mode, where the command in doubt can be looked at in no other. */
  | { readonly kind: 'connect'; readonly mode: Mode | undefined }
  /** Look whether a piece's range already holds the image, before sending it again. */
  | { readonly kind: 'look'; readonly command: Extract<Command, { kind: 'put' }> }

export type Turn = { readonly state: RunState; readonly orders: readonly RunOrder[] }

/** A run at its beginning. */
export function begin(serial: string, epoch: number, commands: readonly Command[]): Turn {
  return intend({
    serial,
    epoch,
    commands,
    next: 0,
    phase: { kind: 'ended' },
    stopping: false,
    losses: 0,
  })
}

/**
 * A run taken up from its journal, under a higher epoch than it had. A journal with an entry out of turn
 * stops it at once: what was sent after that entry nobody can say, and nothing is sent blindly.
 */
export function takeUp(
  serial: string,
  epoch: number,
  commands: readonly Command[],
  journal: readonly JournalEntry[],
): Turn {
  const { next, inDoubt, odd } = followed(journal)
  const base = begin(serial, epoch, commands).state
  if (odd !== undefined) return halt({ ...base, next }, { kind: 'journal', entry: odd + 1 })
  if (!inDoubt) return intend({ ...base, next })
  const lost: RunState = { ...base, next, phase: { kind: 'lost' } }
  return { state: lost, orders: [meetAgain(lost)] }
}

/** One event taken in. Events that do not belong to the phase change nothing. */
export function reduce(state: RunState, event: RunEvent): Turn {
  const stay: Turn = { state, orders: [] }
  if (event.kind === 'stop') return stop(state)
  if (event.kind === 'refused' && event.code === 'old-epoch')
    return halt(state, { kind: 'superseded' })
  switch (state.phase.kind) {
    case 'writing-down':
      return event.kind === 'durable' ? writtenDown(state, state.phase.what) : stay
    case 'doing':
      return whileDoing(state, event)
    case 'lost':
      return event.kind === 'met' ? metAgain(state, event.facts) : stay
    case 'looking':
      return whileLooking(state, event)
    case 'stopped':
    case 'ended':
      return stay
  }
}

/**
 * A stop takes effect at the next moment at which nothing is being written: at once while the device is
 * waited for, read or asked of hands; after the piece while one is on its way; and when a line of the
 * journal is durable while one is being written down.
 */
function stop(state: RunState): Turn {
  const { kind } = state.phase
  if (kind === 'stopped' || kind === 'ended') return { state, orders: [] }
  const busy = kind === 'writing-down' || (kind === 'doing' && writes(current(state)))
  return busy ? { state: { ...state, stopping: true }, orders: [] } : halt(state, { kind: 'asked' })
}

/** Whether a command puts bytes on the device while it is under way. */
export const writes = (command: Command | undefined): boolean => command?.kind === 'put'

const halt = (state: RunState, why: StopReason): Turn => ({
  state: { ...state, phase: { kind: 'stopped', why } },
  orders: [],
})

const current = (state: RunState): Command | undefined => state.commands[state.next]

/** Bytes and digests are looked at in the mode in which they are written. */
function meetAgain(state: RunState): RunOrder {
  const command = current(state)
  const bound = command?.kind === 'put' || command?.kind === 'digest'
  return { kind: 'connect', mode: bound ? command.mode : undefined }
}

/** Writes down the next intention, or ends. */
function intend(state: RunState): Turn {
  if (state.stopping) return halt(state, { kind: 'asked' })
  if (current(state) === undefined)
    return { state: { ...state, phase: { kind: 'ended' } }, orders: [] }
  const { next: command, epoch } = state
  return {
    state: { ...state, phase: { kind: 'writing-down', what: 'intend' }, losses: 0 },
    orders: [{ kind: 'journal', entry: { kind: 'intend', command, epoch } }],
  }
}

function writtenDown(state: RunState, what: 'intend' | 'done'): Turn {
  if (what === 'done') return intend({ ...state, next: state.next + 1 })
  /* Written down and not sent: it is in doubt when the run is taken up, and looked at then. */
  return state.stopping ? halt(state, { kind: 'asked' }) : send(state)
}

function send(state: RunState): Turn {
  const command = current(state)
  if (command === undefined) return { state: { ...state, phase: { kind: 'ended' } }, orders: [] }
  return { state: { ...state, phase: { kind: 'doing' } }, orders: [{ kind: 'send', command }] }
}

function finish(state: RunState, evidence: string): Turn {
  const { next: command } = state
  return {
    state: { ...state, phase: { kind: 'writing-down', what: 'done' } },
    orders: [{ kind: 'journal', entry: { kind: 'done', command, evidence } }],
  }
}

function whileDoing(state: RunState, event: RunEvent): Turn {
  const command = current(state)
  switch (event.kind) {
    case 'done':
      return finish(state, event.evidence)
    case 'facts':
      return command?.kind === 'facts' || command?.kind === 'meet' || command?.kind === 'restart'
        ? compared(state, command, event.facts)
        : { state, orders: [] }
    case 'digest':
      return command?.kind === 'digest'
        ? readBack(state, command, event.image)
        : { state, orders: [] }
    case 'refused':
      return halt(state, { kind: 'refused', code: event.code })
    case 'lost':
      return {
        state: { ...state, phase: { kind: 'lost' }, losses: state.losses + 1 },
        orders: [meetAgain(state)],
      }
    case 'durable':
    case 'met':
    case 'stop':
      return { state, orders: [] }
  }
}

/** At every meeting the ids are compared; facts that were promised must hold. */
function compared(state: RunState, command: Command, facts: DeviceFacts): Turn {
  if (facts.serial !== state.serial)
    return halt(state, { kind: 'wrong-device', serial: facts.serial })
  const promised = command.kind === 'facts' ? command.expect : undefined
  if (promised === undefined) return finish(state, `${facts.serial} ${facts.mode}`)
  const kept =
    facts.build === promised.build &&
    facts.release === promised.release &&
    facts.loaderVersion === promised.loaderVersion &&
    facts.floor === promised.floor &&
    facts.outcome === 'normal'
  return kept
    ? finish(state, `${facts.build ?? ''} as promised`)
    : halt(state, { kind: 'not-as-promised', facts })
}

function readBack(
  state: RunState,
  { partition, image }: Extract<Command, { kind: 'digest' }>,
  found: string | undefined,
): Turn {
  return found === image ? finish(state, image) : halt(state, { kind: 'not-equal', partition })
}

/**
 * Met again with a command in doubt: another device stops the run; a piece is looked at; a restart is
 * done when the mode is the wanted one; everything that only reads or waits is simply asked again.
 */
function metAgain(state: RunState, facts: DeviceFacts): Turn {
  if (facts.serial !== state.serial)
    return halt(state, { kind: 'wrong-device', serial: facts.serial })
  const command = current(state)
  if (command?.kind === 'put')
    return {
      state: { ...state, phase: { kind: 'looking' } },
      orders: [{ kind: 'look', command }],
    }
  if (command?.kind === 'restart' && facts.mode === command.to)
    return finish(state, `found in ${facts.mode}`)
  return send(state)
}

function whileLooking(state: RunState, event: RunEvent): Turn {
  if (event.kind === 'lost')
    return { state: { ...state, phase: { kind: 'lost' } }, orders: [meetAgain(state)] }
  if (event.kind !== 'digest') return { state, orders: [] }
  const command = current(state)
  const whole = command?.kind === 'put' && event.image === command.image
  return whole ? finish(state, 'found whole') : send(state)
}
