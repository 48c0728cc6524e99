/**
 * Driving a run on the twin: carries out, act by act, what the run's orders are in verbs of the link, and reports
 * what comes of it, so that what is rehearsed is what is run. Reads a run and a device; gives both at the end,
 * with the journal and the model time. People do at once what they are asked.
 */
import type { Ask, Command } from '../command/command.ts'
import { answersIn, beginsIn, isKind, takesIn } from '../family/modes.ts'
import { leadsOf } from '../modes/ways.ts'
import type { JournalEntry } from '../run/journal.ts'
import type { Deed, FilePut, Hands, Outcome, Put } from '../run/perform.ts'
import { leased, perform } from '../run/perform.ts'
import type { RunEvent, RunOrder, RunState, Turn } from '../run/run.ts'
import { reduce } from '../run/run.ts'
import type { Plain } from '../twin/asked.ts'
import { inputOf, saidBy } from '../twin/asked.ts'
import type { DeviceModel } from '../twin/state.ts'
import type { Nature, Stepped, TwinInput, TwinOutput } from '../twin/stepped.ts'
import { step } from '../twin/twin.ts'
import type { Unleased } from '../wire/verbs.ts'

export type Scene = {
  readonly state: RunState
  readonly device: DeviceModel
  readonly journal: readonly JournalEntry[]
  /** Whether the device is met: its link is open. */
  readonly linked: boolean
}

type Begins = Extract<TwinInput, { kind: 'begin' | 'file-put' }>

/** Called before a command is sent; answering true ends the drive there, with the scene as it is. */
export type Watch = (scene: Scene, command: Command) => boolean

/** A run on one device makes fewer turns than this; more is a bug. */
const TURNS_MAX = 10_000

/** Drives from a turn until the run stands still, or the watch says stop. */
export function drive(
  nature: Nature,
  device: DeviceModel,
  turn: Turn,
  journal: readonly JournalEntry[] = [],
  watch: Watch = () => false,
): Scene {
  let scene: Scene = { state: turn.state, device, journal, linked: false }
  const orders: RunOrder[] = [...turn.orders]
  for (let turns = 0; turns < TURNS_MAX; turns += 1) {
    const order = orders.shift()
    if (order === undefined) return scene
    if (order.kind === 'send' && watch(scene, order.command)) return scene
    const carried = carriedOut(nature, scene, order)
    if (carried.event === undefined) return carried.scene
    const next = reduce(scene.state, carried.event)
    scene = { ...carried.scene, state: next.state }
    orders.push(...next.orders)
  }
  throw new Error(`a run that does not end, at command ${scene.state.next}`)
}

type Came = { readonly scene: Scene; readonly outcome: Outcome }

/** An order act by act on the twin. */
function carriedOut(
  nature: Nature,
  before: Scene,
  order: RunOrder,
): { readonly scene: Scene; readonly event: RunEvent | undefined } {
  let scene = before
  const { linked, state } = scene
  const leads = leadsOf(nature.family)
  const deeds = perform(order, { linked, serial: state.serial, leads })
  let next = deeds.next()
  while (next.done !== true) {
    const came = did(nature, scene, next.value)
    scene = came.outcome.came === 'lost' ? { ...came.scene, linked: false } : came.scene
    next = deeds.next(came.outcome)
  }
  return { scene, event: next.value }
}

function did(nature: Nature, scene: Scene, deed: Deed): Came {
  switch (deed.deed) {
    case 'write-down': {
      const journal = [...scene.journal, { ...deed.entry, at: scene.device.at }]
      return { scene: { ...scene, journal }, outcome: { came: 'done' } }
    }
    case 'meet':
      return met(nature, scene, deed)
    case 'leave':
      return { scene: { ...scene, linked: false }, outcome: { came: 'done' } }
    case 'ask':
      return asked(nature, scene, deed.request)
    case 'piece':
      return put(nature, scene, deed.piece)
    case 'file':
      return fileSent(nature, scene, deed.file)
    case 'compare':
      return compared(nature, scene, deed.piece)
    case 'table':
      return tableRead(nature, scene, deed.wanted)
    case 'hands':
      return byHand(nature, scene, deed.hands)
  }
}

/** A device answers a restart before it goes, whatever becomes of it then. */
function asked(nature: Nature, scene: Scene, request: Unleased): Came {
  const came = ask(nature, scene, inputOf(leased(request, leaseOf(scene)) as Plain))
  const goes = request.verb === 'restart' && answersIn(nature.family, scene.device.mode)
  if (!goes || came.outcome.came !== 'lost') return came
  return { ...came, outcome: { came: 'answer', answer: { answer: 'mode', mode: request.to } } }
}

/** Who speaks in a rehearsal. */
const leaseOf = ({ state }: Scene) => ({ run: 'rehearsal', epoch: state.epoch })

/** Met in another mode than the wanted one it is waited for: hands are needed, and nobody has any here. */
function met(nature: Nature, before: Scene, { mode, or }: Extract<Deed, { deed: 'meet' }>): Came {
  const scene = permitted(nature, before)
  const { device, output } = stepped(nature, scene, { kind: 'hello', epoch: scene.state.epoch })
  if (output.kind !== 'facts')
    return { scene: { ...scene, device, linked: false }, outcome: outcomeOf(output) }
  const elsewhere =
    mode !== undefined &&
    ![mode, ...or].includes(output.facts.mode) &&
    output.facts.serial === scene.state.serial
  if (elsewhere) return { scene: { ...scene, device, linked: false }, outcome: { came: 'lost' } }
  return {
    scene: { ...scene, device, linked: true },
    outcome: { came: 'facts', facts: output.facts },
  }
}

const stepped = (nature: Nature, { device }: Scene, input: TwinInput): Stepped =>
  step(nature, device, input, device.at)

/** One input to the twin, and what it says to it. */
function ask(nature: Nature, scene: Scene, input: TwinInput): Came {
  const { device, output } = stepped(nature, scene, input)
  return { scene: { ...scene, device }, outcome: outcomeOf(output) }
}

function outcomeOf(output: TwinOutput): Outcome {
  const answer = saidBy(output)
  if (answer === undefined) return { came: 'lost' }
  if (answer.answer === 'refused') return { came: 'refused', code: answer.code }
  return answer.answer === 'facts'
    ? { came: 'facts', facts: answer.facts }
    : { came: 'answer', answer }
}

function compared(nature: Nature, scene: Scene, piece: Put): Came {
  const { partition, offset, size, image } = piece
  const { device, output } = stepped(nature, scene, {
    kind: 'look',
    partition,
    offset,
    size,
    image,
  })
  const after = { ...scene, device }
  if (output.kind !== 'digest') return { scene: after, outcome: outcomeOf(output) }
  return { scene: after, outcome: { came: 'compared', equal: output.image === image } }
}

/** A model is made on the table that was read: where its mode shows it, it is that. */
const tableRead = ({ family }: Nature, scene: Scene, wanted: string): Came => ({
  scene,
  outcome: takesIn(family, scene.device.mode, 'table')
    ? { came: 'table', table: wanted }
    : { came: 'refused', code: 'wrong-mode' },
})

/** What hands do to the device itself, by what is asked of them. */
const BY_HAND_INPUTS: Readonly<Partial<Record<Ask, TwinInput>>> = {
  reset: { kind: 'reset' },
  'set-up': { kind: 'permit', given: true },
  confirm: { kind: 'confirm' },
  'go-on': { kind: 'confirm' },
  'lock-switch': { kind: 'lock-switch', on: true },
}

/** A person presses the keys they were asked for; other hands leave the device as it is. */
function byHand(nature: Nature, scene: Scene, { to, ask: asked, store }: Hands): Came {
  const outcome = { came: 'hands', by: 'a person' } as const
  const installs = asked === 'install' && store !== undefined
  const hands = installs
    ? ({ kind: 'install', store, name: undefined } as const)
    : BY_HAND_INPUTS[asked]
  if (hands !== undefined) {
    const { device } = stepped(nature, scene, hands)
    return { scene: { ...scene, device, linked: false }, outcome }
  }
  const leads = nature.family.ways.some(
    (way) => way.hands && way.to === to && beginsIn(way, scene.device.mode),
  )
  if (to === undefined || !leads) return { scene, outcome }
  const { device } = stepped(nature, scene, { kind: 'keys', to })
  return { scene: { ...scene, device, linked: false }, outcome }
}

/** A device that runs and is not heard: the person who waits presses what it asks for, and permits the link. */
function permitted(nature: Nature, scene: Scene): Scene {
  const runs = isKind(nature.family, scene.device.mode, 'system')
  if (!runs || scene.device.permission) return scene
  const asks = scene.device.key === 'asked'
  const pressed = asks ? stepped(nature, scene, { kind: 'confirm' }).device : scene.device
  const { device } = stepped(nature, { ...scene, device: pressed }, { kind: 'permit', given: true })
  return { ...scene, device }
}

function put(nature: Nature, scene: Scene, piece: Put): Came {
  const { epoch } = scene.state
  return sent(nature, scene, { ...piece, kind: 'begin', epoch }, piece.size)
}

function fileSent(nature: Nature, scene: Scene, file: FilePut): Came {
  const { store, name, size, image } = file
  const { epoch } = scene.state
  return sent(nature, scene, { kind: 'file-put', epoch, store, name, size, image }, size)
}

/** Begun, the bytes that are not kept yet, finish. */
function sent(nature: Nature, scene: Scene, input: Begins, size: number): Came {
  const { epoch } = scene.state
  const begun = stepped(nature, scene, input)
  const { output } = begun
  const ends = ({ device, output: said }: Stepped): Came => ({
    scene: { ...scene, device },
    outcome: said.kind === 'kept' ? { came: 'done' } : outcomeOf(said),
  })
  if (output.kind !== 'kept') return ends(begun)
  const rest = size - output.got
  const chunk = { kind: 'chunk', epoch, offset: output.got, size: rest } as const
  const all = rest === 0 ? begun : step(nature, begun.device, chunk, begun.doneAt)
  if (all.output.kind !== 'kept') return ends(all)
  return ends(step(nature, all.device, { kind: 'finish', epoch }, all.doneAt))
}
