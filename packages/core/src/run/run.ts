/**
 * The engine of a run as a pure reducer: state and event give state and orders. Whoever drives it (the
 * agent with a device, the rehearsal with the twin) carries out the orders and reports events. An
 * intention is durable before it is sent; what was in doubt is looked at before it is repeated; nothing
 * that cannot be repeated blindly is.
 */
import { z } from 'zod'
import type { Command } from '../command/command.ts'
import { modeOf } from '../command/command.ts'
import { textDifferences } from '../layout/wanted.ts'
import type { Mode } from '../terms/device.ts'
import type { DeviceFacts } from '../wire/facts.ts'
import { deviceFactsSchema } from '../wire/facts.ts'
import type { DeviceRefusal } from '../wire/verbs.ts'
import { REFUSALS } from '../wire/verbs.ts'
import { isAsExpected, otherId } from './expected.ts'
import type { RunEvidence } from './evidence.ts'
import type { JournalEntry } from './journal.ts'
import { followed } from './journal.ts'

/** Ways in which a partition differs, and partitions that are named at most. */
const HOWS = ['missing', 'added', 'moved', 'resized', 'retyped'] as const
const NAMED_MOST = 12

export const stopReasonSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('wrong-device'), serial: z.string() }).readonly(),
  /** The serial is the plan's, and another id is not. */
  z
    .object({
      kind: z.literal('other-id'),
      fact: z.enum(['model', 'board', 'chipset']),
      here: z.string(),
      planned: z.string(),
    })
    .readonly(),
  /** What could not be sent twice was on its way when the link was lost, and no fact says whether it was done. */
  z.object({ kind: z.literal('undecided'), what: z.enum(['lock', 'slot', 'permit']) }).readonly(),
  /** Something of the customer's can still be counted, where all was to be gone. */
  z.object({ kind: z.literal('not-wiped'), items: z.int() }).readonly(),
  z.object({ kind: z.literal('refused'), code: z.enum(REFUSALS) }).readonly(),
  z.object({ kind: z.literal('not-equal'), partition: z.string() }).readonly(),
  /** Its partition table is not the one that the plan was made on: which partitions, and how; not said by runs of before. */
  z
    .object({
      kind: z.literal('other-table'),
      differ: z.exactOptional(z.array(z.object({ partition: z.string(), how: z.enum(HOWS) }))),
    })
    .readonly(),
  /** Hands said that it goes on, and it still waits for a key. */
  z.object({ kind: z.literal('waits') }).readonly(),
  z.object({ kind: z.literal('not-as-promised'), facts: deviceFactsSchema }).readonly(),
  /** Bytes that the run still needs are not on the shelf any more, or are others than they were. */
  z
    .object({
      kind: z.literal('bytes'),
      image: z.string(),
      what: z.enum(['missing', 'damaged']),
    })
    .readonly(),
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
  /** How often the command under way was lost, and how often the device misread it. */
  readonly losses: number
  readonly misread: number
}

export type RunEvent =
  | { readonly kind: 'durable' }
  | { readonly kind: 'done'; readonly evidence: RunEvidence }
  | { readonly kind: 'facts'; readonly facts: DeviceFacts }
  | { readonly kind: 'digest'; readonly image: string | undefined }
  | { readonly kind: 'tally'; readonly items: number }
  /** The table that was read, as a text; undefined: none that holds. */
  | { readonly kind: 'table'; readonly table: string | undefined }
  | { readonly kind: 'refused'; readonly code: DeviceRefusal }
  | { readonly kind: 'lost' }
  /** Nobody was connected as it was to be sent: the run was taken up between two commands, or hands had the device off. */
  | { readonly kind: 'unlinked' }
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
    misread: 0,
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
  /* Hands were asked, and nothing was said to the device: it may be off until they have done it. */
  if (commands[next]?.kind === 'person') return send({ ...base, next })
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

/** Whether a command changes what stands on the device while it is under way. */
export const writes = (command: Command | undefined): boolean =>
  command !== undefined && CHANGING.includes(command.kind)
const CHANGING: readonly Command['kind'][] = [
  'put',
  'erase',
  'lock',
  'slot',
  'permit',
  'copy',
  'push',
]

const halt = (state: RunState, why: StopReason): Turn => ({
  state: { ...state, phase: { kind: 'stopped', why } },
  orders: [],
})

const current = (state: RunState): Command | undefined => state.commands[state.next]

/** What is bound to a mode is looked at in that mode. */
function meetAgain(state: RunState): RunOrder {
  const command = current(state)
  const bound = command?.kind === 'meet' ? command.mode : modeOf(command)
  const mode = command?.kind === 'restart' ? undefined : bound
  return { kind: 'connect', mode }
}

/** Writes down the next intention, or ends. */
function intend(state: RunState): Turn {
  if (state.stopping) return halt(state, { kind: 'asked' })
  if (current(state) === undefined)
    return { state: { ...state, phase: { kind: 'ended' } }, orders: [] }
  const { next: command, epoch } = state
  return {
    state: { ...state, phase: { kind: 'writing-down', what: 'intend' }, losses: 0, misread: 0 },
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

function finish(state: RunState, evidence: RunEvidence): Turn {
  const { next: command } = state
  return {
    state: { ...state, phase: { kind: 'writing-down', what: 'done' } },
    orders: [{ kind: 'journal', entry: { kind: 'done', command, evidence } }],
  }
}

/** A piece that the device misread is sent again as often as this before the run stops on it. */
export const MISREAD_MOST = 3

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
      return command?.kind === 'digest' || command?.kind === 'prove-copy'
        ? readBack(state, command, event.image)
        : { state, orders: [] }
    case 'tally':
      if (command?.kind !== 'tally') return { state, orders: [] }
      return event.items === command.items
        ? finish(state, { is: 'items', items: event.items })
        : halt(state, { kind: 'not-wiped', items: event.items })
    case 'table':
      if (command?.kind !== 'table') return { state, orders: [] }
      return tableMet(state, event.table, command.table)
    case 'refused':
      return event.code === 'bad-digest' && state.misread < MISREAD_MOST
        ? send({ ...state, misread: state.misread + 1 })
        : halt(state, { kind: 'refused', code: event.code })
    case 'lost':
    case 'unlinked':
      return gone(state, event.kind)
    case 'durable':
    case 'met':
    case 'stop':
      return { state, orders: [] }
  }
}

/** Met again before anything else; it counts as a loss where somebody was connected. */
const gone = (state: RunState, how: 'lost' | 'unlinked'): Turn => ({
  state: { ...state, phase: { kind: 'lost' }, losses: state.losses + Number(how === 'lost') },
  orders: [meetAgain(state)],
})

const foundAs = (as: string): RunEvidence => ({ is: 'found', as })

/** At every meeting the ids are compared; facts that were promised must hold. */
function compared(state: RunState, command: Command, facts: DeviceFacts): Turn {
  const other = otherThan(state, facts)
  if (other !== undefined) return halt(state, other)
  const promised = command.kind === 'facts' ? command.expect : undefined
  if (promised === undefined)
    return finish(state, { is: 'met', serial: facts.serial, mode: facts.mode })
  if (facts.asks === 'go-on') return halt(state, { kind: 'waits' })
  return isAsExpected(promised, facts)
    ? finish(state, { is: 'promised', build: facts.build ?? '' })
    : halt(state, { kind: 'not-as-promised', facts })
}

/** The table as it is now against the one that is wanted; one that cannot be read is another. */
function tableMet(state: RunState, here: string | undefined, wanted: string): Turn {
  if (here === undefined) return halt(state, { kind: 'other-table' })
  const differ = textDifferences(here, wanted)
  if (differ.length === 0) return finish(state, { is: 'table' })
  const named = differ.slice(0, NAMED_MOST).map(({ name, how }) => ({ partition: name, how }))
  return halt(state, { kind: 'other-table', differ: named })
}

/** Why what was met is not the device of the plan; undefined: it is. */
function otherThan(state: RunState, facts: DeviceFacts): StopReason | undefined {
  if (facts.serial !== state.serial) return { kind: 'wrong-device', serial: facts.serial }
  const meeting = state.commands.find(
    (command) => command.kind === 'meet' && command.ids !== undefined,
  )
  const ids = meeting?.kind === 'meet' ? meeting.ids : undefined
  const other = ids === undefined ? undefined : otherId(ids, facts)
  return other === undefined ? undefined : { kind: 'other-id', ...other }
}

function readBack(
  state: RunState,
  command: Extract<Command, { kind: 'digest' | 'prove-copy' }>,
  found: string | undefined,
): Turn {
  if (found === command.image) return finish(state, { is: 'digest', sha256: found })
  const partition = command.kind === 'digest' ? command.partition : command.name
  return halt(state, { kind: 'not-equal', partition })
}

/**
 * Met again with a command in doubt: another device stops the run; a piece is looked at; a restart is
 * done when the mode is the wanted one; lock and slot are decided by the facts, and never sent blind; an
 * push is done when it asks for a hand; an erase is sent again, and everything that only reads or waits is
 * simply asked again.
 */
function metAgain(state: RunState, facts: DeviceFacts): Turn {
  const other = otherThan(state, facts)
  if (other !== undefined) return halt(state, other)
  const command = current(state)
  if (command?.kind === 'merge' && facts.merge === 'none') return finish(state, foundAs('merged'))
  if (command?.kind === 'lock') return decided(state, 'lock', facts.bootLock, command.to)
  if (command?.kind === 'slot') return decided(state, 'slot', facts.slotToTry, command.slot)
  if (command?.kind === 'permit') return decided(state, 'permit', facts.permit, 'granted')
  if (command?.kind === 'push' && facts.asks === 'confirm')
    return finish(state, foundAs('installed'))
  if (command?.kind === 'put')
    return {
      state: { ...state, phase: { kind: 'looking' } },
      orders: [{ kind: 'look', command }],
    }
  if (command?.kind === 'restart' && facts.mode === command.to)
    return finish(state, foundAs(facts.mode))
  return send(state)
}

/** Done where the facts show what was wanted, sent where they show that it was not done. */
function decided(
  state: RunState,
  what: 'lock' | 'slot' | 'permit',
  here: string | undefined,
  wanted: string,
): Turn {
  if (here === undefined) return halt(state, { kind: 'undecided', what })
  return here === wanted ? finish(state, foundAs(here)) : send(state)
}

function whileLooking(state: RunState, event: RunEvent): Turn {
  if (event.kind === 'lost' || event.kind === 'unlinked') return gone(state, event.kind)
  if (event.kind !== 'digest') return { state, orders: [] }
  const command = current(state)
  const whole = command?.kind === 'put' && event.image === command.image
  return whole ? finish(state, foundAs('whole')) : send(state)
}
