/**
 * Driving a run on the twin: carries out the reducer's orders on the model and reports what it says, so
 * that what is rehearsed is what is run. Reads a run and a device; gives both at the end, with the
 * journal and the model time. People do at once what they are asked.
 */
import type { Ask, Command } from '../command/command.ts'
import { beginsIn, isKind } from '../family/modes.ts'
import type { JournalEntry } from '../run/journal.ts'
import type { RunOrder, RunEvent, RunState, Turn } from '../run/run.ts'
import { reduce } from '../run/run.ts'
import type { DeviceModel } from '../twin/state.ts'
import type { Nature, TwinInput, TwinOutput } from '../twin/stepped.ts'
import { step } from '../twin/twin.ts'
import type { Mode } from '../terms/device.ts'

export type Scene = {
  readonly state: RunState
  readonly device: DeviceModel
  readonly journal: readonly JournalEntry[]
}

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
  let scene: Scene = { state: turn.state, device, journal }
  const orders: RunOrder[] = [...turn.orders]
  for (let turns = 0; turns < TURNS_MAX; turns += 1) {
    const order = orders.shift()
    if (order === undefined) return scene
    if (order.kind === 'send' && watch(scene, order.command)) return scene
    const carried = carryOut(nature, scene, order)
    const next = reduce(scene.state, carried.event)
    scene = { ...carried.scene, state: next.state }
    orders.push(...next.orders)
  }
  throw new Error(`a run that does not end, at command ${scene.state.next}`)
}

type Carried = { readonly scene: Scene; readonly event: RunEvent }

function carryOut(nature: Nature, scene: Scene, order: RunOrder): Carried {
  switch (order.kind) {
    case 'journal':
      return {
        scene: { ...scene, journal: [...scene.journal, { ...order.entry, at: scene.device.at }] },
        event: { kind: 'durable' },
      }
    case 'connect':
      return meetAgain(nature, scene, order.mode)
    case 'look': {
      const { partition, offset, size, image } = order.command
      return ask(nature, scene, { kind: 'look', partition, offset, size, image }, 'facts')
    }
    case 'send':
      return send(nature, scene, order.command)
  }
}

/** Met in another mode than the wanted one, the run waits on: hands are needed. */
function meetAgain(nature: Nature, scene: Scene, mode: Mode | undefined): Carried {
  const met = ask(
    nature,
    permitted(nature, scene),
    { kind: 'hello', epoch: scene.state.epoch },
    'met',
  )
  const elsewhere = met.event.kind === 'met' && mode !== undefined && met.event.facts.mode !== mode
  return elsewhere ? { ...met, event: { kind: 'lost' } } : met
}

/** One input to the twin, its answer as an event of the run. */
function ask(nature: Nature, scene: Scene, input: TwinInput, as: 'met' | 'facts'): Carried {
  const { device, output } = step(nature, scene.device, input, scene.device.at)
  return { scene: { ...scene, device }, event: eventOf(output, as) }
}

function eventOf(output: TwinOutput, as: 'met' | 'facts'): RunEvent {
  switch (output.kind) {
    case 'facts':
      return { kind: as, facts: output.facts }
    case 'digest':
      return { kind: 'digest', image: output.image }
    case 'refused':
      return { kind: 'refused', code: output.code }
    case 'silent':
      return { kind: 'lost' }
    case 'tally':
      return { kind: 'tally', items: output.items }
    case 'kept':
    case 'mode':
    case 'done':
      return { kind: 'done', evidence: output.kind }
  }
}

function send(nature: Nature, scene: Scene, command: Command): Carried {
  const { epoch } = scene.state
  switch (command.kind) {
    case 'person':
      return byHand(nature, scene, command)
    case 'meet':
    case 'facts':
      return ask(nature, permitted(nature, scene), { kind: 'hello', epoch }, 'facts')
    case 'digest': {
      const { partition, size } = command
      return ask(nature, scene, { kind: 'digest', partition, size }, 'facts')
    }
    case 'restart': {
      const said = ask(nature, scene, { kind: 'restart', epoch, to: command.to }, 'facts')
      /* Wiped, nobody is heard before somebody has gone through the set-up: it is told to start, and no more. */
      if (command.first === 'wiped' && said.event.kind !== 'refused')
        return { ...said, event: { kind: 'done', evidence: 'told to start' } }
      return thenMet(nature, said)
    }
    case 'put':
      return put(nature, scene, command)
    case 'erase':
      return ask(nature, scene, { kind: 'erase', epoch, partition: command.partition }, 'facts')
    case 'lock':
      return ask(nature, scene, { kind: 'lock', epoch, to: command.to }, 'facts')
    case 'slot':
      return ask(nature, scene, { kind: 'slot', epoch, slot: command.slot }, 'facts')
    case 'tally':
      return ask(nature, permitted(nature, scene), { kind: 'tally' }, 'facts')
  }
}

/** What hands do to the device itself, by what is asked of them. */
const BY_HAND_INPUTS: Readonly<Partial<Record<Ask, TwinInput>>> = {
  reset: { kind: 'reset' },
  'set-up': { kind: 'permit', given: true },
}

/** A person presses the keys they were asked for; other hands leave the device as it is. */
function byHand(
  nature: Nature,
  scene: Scene,
  command: Extract<Command, { kind: 'person' }>,
): Carried {
  const event = { kind: 'done', evidence: 'a person' } as const
  const { to, ask: asked } = command
  const hands = BY_HAND_INPUTS[asked]
  if (hands !== undefined) {
    const { device } = step(nature, scene.device, hands, scene.device.at)
    return { scene: { ...scene, device }, event }
  }
  const leads = nature.family.ways.some(
    (way) => way.hands && way.to === to && beginsIn(way, scene.device.mode),
  )
  if (to === undefined || !leads) return { scene, event }
  const { device } = step(nature, scene.device, { kind: 'keys', to }, scene.device.at)
  return { scene: { ...scene, device }, event }
}

/** After a restart the device is met again, and its ids are compared. */
function thenMet(nature: Nature, carried: Carried): Carried {
  if (carried.event.kind !== 'done') return carried
  const scene = permitted(nature, carried.scene)
  return ask(nature, scene, { kind: 'hello', epoch: scene.state.epoch }, 'facts')
}

/** A device that runs and is not heard: the person who waits for it gives it the link permission. */
function permitted(nature: Nature, scene: Scene): Scene {
  const runs = isKind(nature.family, scene.device.mode, 'system')
  if (!runs || scene.device.permission) return scene
  const { device } = step(nature, scene.device, { kind: 'permit', given: true }, scene.device.at)
  return { ...scene, device }
}

/** Begin, the bytes that are not kept yet, finish. */
function put(nature: Nature, scene: Scene, command: Extract<Command, { kind: 'put' }>): Carried {
  const { epoch } = scene.state
  const begun = step(nature, scene.device, { ...command, kind: 'begin', epoch }, scene.device.at)
  const { output } = begun
  if (output.kind !== 'kept')
    return { scene: { ...scene, device: begun.device }, event: eventOf(output, 'facts') }
  const rest = command.size - output.got
  const sent =
    rest === 0
      ? begun
      : step(
          nature,
          begun.device,
          { kind: 'chunk', epoch, offset: output.got, size: rest },
          begun.doneAt,
        )
  if (sent.output.kind !== 'kept')
    return { scene: { ...scene, device: sent.device }, event: eventOf(sent.output, 'facts') }
  const ended = step(nature, sent.device, { kind: 'finish', epoch }, sent.doneAt)
  return { scene: { ...scene, device: ended.device }, event: eventOf(ended.output, 'facts') }
}
