/**
 * One device twice: as a twin, and simulated behind the link with real bytes. Makes both from the same
 * draft, runs the same plan on both with the same cut, and tells where they differ.
 */
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type {
  Case,
  Command,
  Cut,
  DeviceModel,
  Evidence,
  Family,
  JournalEntry,
  Manifest,
  Nature,
  Plan,
  Reading,
  RunState,
  Turn,
  Way,
} from '@plain-slate/core'
import {
  BLOCK_BYTES,
  afterCut,
  begin,
  drive,
  factsOf,
  familyTable,
  flatten,
  identify,
  isKind,
  makePlan,
  modeOf,
  modeOfKind,
  modeTaking,
  ms,
  readingsOf as readingsOverLink,
  reduce,
  step,
  takeUp,
  waysTo,
} from '@plain-slate/core'
import type { DemoDevice } from '@plain-slate/demo'
import { bytesOf, makeDevice } from '@plain-slate/demo'
import type { RunNews } from '@plain-slate/link'
import { driveRun } from '@plain-slate/link'
import type { Bench, SimulatedDevice } from '@plain-slate/standins'
import { openBench } from '@plain-slate/standins'
import type { ShelfAt } from './shelf.ts'

const SECRET = 'a secret of the test'

export type Scene = {
  readonly bench: Bench
  readonly device: SimulatedDevice
  readonly nature: Nature
  readonly before: DeviceModel
  readonly flashBefore: Buffer
  readonly flashPath: string
  readonly shelf: ShelfAt
  readonly end: () => Promise<void>
}

/** The device on a bench of its own, in port P1. */
export async function sceneOf(shelf: ShelfAt, draft: DemoDevice): Promise<Scene> {
  const folder = mkdtempSync(join(tmpdir(), 'agrees-'))
  mkdirSync(folder, { recursive: true })
  const { family } = shelf
  makeDevice({ folder, family, scale: shelf.scale }, { ...draft, port: 'P1' })
  const flashPath = join(folder, `${draft.serial}.flash`)
  const flashBefore = readFileSync(flashPath)
  const bench = await openBench({
    folder,
    secret: SECRET,
    pace: 0,
    ports: { P1: 0 },
    families: [family],
    images: [...shelf.catalogue.values()],
  })
  const [device] = bench.devices()
  if (device === undefined) throw new Error('no device')
  return {
    bench,
    device,
    nature: device.nature,
    before: device.model,
    flashBefore,
    flashPath,
    shelf,
    async end() {
      await bench.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

/** Readings of a device over the link in every mode, all at once. */
export const readingsOf = (
  { family: of, ...nature }: Nature,
  device: DeviceModel,
): readonly Reading[] =>
  of.modes.flatMap(({ id }) =>
    readingsOverLink(factsOf({ family: of, ...nature }, { ...device, mode: id }), ms(1)),
  )

export type Wish = {
  readonly aim: Manifest
  readonly evidence: ReadonlyMap<string, Evidence>
  readonly intent: Case['intent']
  readonly keepData: boolean
}

/** A plan for the device to a package, with some of its digests known. */
export function planFor(scene: Scene, { aim, ...wish }: Wish): Plan | undefined {
  const { nature, before, shelf } = scene
  const { family } = shelf
  const at: Case = {
    family,
    identity: identify(family, readingsOf(nature, before)),
    byEye: false,
    placeless: [],
    shelved: { key: aim.id, manifest: aim, state: 'published' },
    house: { batteryMargin: 5, batteryFloor: undefined, lawfulRegions: ['HI', 'EX'] },
    ...wish,
    table: familyTable(family, before.fused, shelf.scale, scene.device.file.diskBytes),
    shelf: shelf.shelf,
  }
  const made = makePlan({ at, mode: before.mode, permission: before.permission })
  return made.ok ? made.value : undefined
}

export type Ended = {
  readonly device: DeviceModel
  readonly journal: readonly JournalEntry[]
  readonly phase: RunState['phase']['kind']
}

/** What hands do after a cut: charge, plug, and the keys into the loader where the power went. */
const CHARGE = 90

/** Commands that change what stands on the device: those that can be cut. */
export const isChange = (
  command: Command | undefined,
): command is Extract<Command, { kind: 'put' | 'erase' | 'lock' | 'slot' }> =>
  command?.kind === 'put' ||
  command?.kind === 'erase' ||
  command?.kind === 'lock' ||
  command?.kind === 'slot'

/** The plan on the twin, cut once. */
export function onTwin({ nature, before }: Scene, plan: Plan, cut: Cut | undefined): Ended {
  const { commands } = flatten(plan)
  let changes = 0
  const first = drive(nature, before, begin(plan.serial, 1, commands), [], (scene, command) => {
    if (!isChange(command) || cut === undefined) return false
    changes += 1
    return changes - 1 === cut.command && scene.state.phase.kind === 'doing'
  })
  const command = commands[first.state.next]
  if (cut === undefined || !isChange(command) || first.state.phase.kind !== 'doing')
    return { device: first.device, journal: first.journal, phase: first.state.phase.kind }
  const after = command.kind === 'put' && cut.bytes > command.size
  const at = after ? nextSend(nature, first, commands) : first
  const cutDevice = after
    ? cutIdle(nature, at.device, cut.kind)
    : afterCut(nature, first, command, cut.bytes, cut.kind)
  const lost = reduce(at.state, { kind: 'lost' })
  const turn = cut.kind === 'computer' ? takeUp(plan.serial, 2, commands, at.journal) : lost
  const wanted = modeOf(commands[at.state.next])
  const helped = cut.kind === 'battery' ? helpedUp(nature, cutDevice, wanted) : cutDevice
  const end = drive(nature, helped, turn, at.journal)
  return { device: end.device, journal: end.journal, phase: end.state.phase.kind }
}

/** Goes on to where the command after this piece is about to be sent. */
function nextSend(nature: Nature, scene: ReturnType<typeof drive>, commands: readonly Command[]) {
  const turn: Turn = {
    state: scene.state,
    orders: [{ kind: 'send', command: commands[scene.state.next] as Command }],
  }
  let sent = 0
  return drive(nature, scene.device, turn, scene.journal, () => (sent += 1) > 1)
}

const cutIdle = ({ family }: Nature, device: DeviceModel, kind: Cut['kind']): DeviceModel =>
  kind === 'battery' ? { ...device, mode: modeOfKind(family, 'off'), session: undefined } : device

/** Charged, and brought by its keys and by commands to the mode in which the run goes on. */
function helpedUp(nature: Nature, device: DeviceModel, to: string | undefined): DeviceModel {
  const charged = step(nature, device, { kind: 'charge', percent: CHARGE }, device.at).device
  return waysUp(nature.family, charged, to).reduce((so, way) => {
    const input = way.hands
      ? ({ kind: 'keys', to: way.to } as const)
      : ({ kind: 'restart', epoch: so.epoch, to: way.to } as const)
    return step(nature, so, input, so.at).device
  }, charged)
}

/** The ways from off to a mode; to the first that writes, where none is wanted. */
function waysUp(family: Family, device: DeviceModel, to: string | undefined): readonly Way[] {
  const wanted = to ?? modeTaking(family, 'write') ?? ''
  return waysTo(family, device.mode, wanted, false) ?? []
}

/** The same plan on the simulated device over TCP, cut once by the device's own count. */
export async function onStandIn(
  scene: Scene,
  plan: Plan,
  cut: Cut | undefined,
  expected: Ended['phase'],
): Promise<Ended> {
  const { commands } = flatten(plan)
  const { bench, device } = scene
  const { family } = scene.shelf
  const serial = plan.serial
  const journal: JournalEntry[] = []
  if (cut !== undefined)
    bench.act({ kind: 'cut', serial, piece: cut.command + 1, bytes: cut.bytes, how: cut.kind })
  let helped = false
  let waits = 0
  let driving: ReturnType<typeof driveRun>
  const tell = (news: RunNews): void => {
    if (news.kind === 'turn') waits = 0
    /* It runs and is not heard: whoever waits gives it the link permission. */
    const runs = isKind(family, device.model.mode, 'system')
    if (news.kind === 'waiting' && runs && !device.model.permission)
      bench.act({ kind: 'permit', serial, given: true })
    if (news.kind === 'waiting' && expected === 'lost' && (waits += 1) > 6) driving.abandon()
    if (news.kind !== 'turn' || news.state.phase.kind !== 'lost' || helped) return
    helped = true
    if (cut?.kind === 'computer') driving.abandon()
    if (cut?.kind === 'cable') bench.act({ kind: 'plug', serial, port: 'P1' })
    if (cut?.kind !== 'battery') return
    bench.act({ kind: 'charge', serial, percent: CHARGE })
    const wanted = modeOf(commands[news.state.next])
    for (const way of waysUp(family, device.model, wanted)) {
      if (way.hands) bench.act({ kind: 'keys', serial, to: way.to })
      else device.restarted(way.to)
    }
  }
  const site = {
    address: { kind: 'tcp', host: '127.0.0.1', port: bench.ports['P1'] ?? 0 },
    secret: SECRET,
    run: 'test',
    bytes: scene.shelf.bytes,
    journal: (entry: JournalEntry) => Promise.resolve(void journal.push(entry)),
    ask(command: Extract<Command, { kind: 'person' }>) {
      if (command.to !== undefined) bench.act({ kind: 'keys', serial, to: command.to })
      if (command.ask === 'reset') bench.act({ kind: 'reset', serial })
      if (command.ask === 'set-up') bench.act({ kind: 'permit', serial, given: true })
      return Promise.resolve('a person')
    },
    tell,
  } as const
  driving = driveRun(begin(serial, 1, commands), site)
  let state = await driving.over
  if (cut?.kind === 'computer' && state.phase.kind === 'lost') {
    driving = driveRun(takeUp(serial, 2, commands, journal), site)
    state = await driving.over
  }
  return { device: device.model, journal, phase: state.phase.kind }
}

/** What must be equal of two devices. */
export const comparable = ({ device, journal }: Ended) => ({
  mode: device.mode,
  lock: device.lock,
  floors: device.floors,
  permission: device.permission,
  loaderVersion: device.loaderVersion,
  data: device.data,
  outcome: device.outcome,
  limits: device.limits,
  slots: device.slots,
  merge: device.merge,
  account: device.account,
  marks: device.marks,
  fresh: device.fresh,
  maps: Object.fromEntries(Object.entries(device.parts).map(([name, { map }]) => [name, map])),
  journal: journal.map(({ kind, command }) => `${kind} ${command}`),
})

/** A block of zeros, as it is after an erase. */
const NOTHING = Buffer.alloc(BLOCK_BYTES)

/** The real bytes against what the map says of them; empty: they agree. */
export function bytesAgainstMap(scene: Scene): readonly string[] {
  const { device, flashBefore, shelf } = scene
  const flash = readFileSync(scene.flashPath)
  return Object.entries(device.model.parts).flatMap(([name, { map }]) =>
    map.flatMap((run) =>
      blocksOf(run).flatMap((block) => {
        const at = (device.file.starts[name] ?? 0) + block * BLOCK_BYTES
        const real = flash.subarray(at, at + BLOCK_BYTES)
        const old = flashBefore.subarray(at, at + BLOCK_BYTES)
        const origin = run.kind === 'image' ? shelf.origins.get(run.image) : undefined
        const from = run.kind === 'image' ? (run.at + block - run.from) * BLOCK_BYTES : 0
        const image = origin === undefined ? undefined : bytesOf(origin, from, from + BLOCK_BYTES)
        const agrees = {
          old: () => real.equals(old),
          image: () => image !== undefined && real.equals(image),
          torn: () => !real.equals(old),
          erased: () => real.equals(NOTHING.subarray(0, real.length)),
        }[run.kind]
        return agrees() ? [] : [`${name} block ${block}: not ${run.kind}`]
      }),
    ),
  )
}

const blocksOf = ({ from, to }: { readonly from: number; readonly to: number }) =>
  Array.from({ length: to - from }, (_, index) => from + index)

/** Marked customer ranges that changed; empty: every bit is as it was. */
export function changedMarks(scene: Scene): readonly string[] {
  const flash = readFileSync(scene.flashPath)
  return scene.device.file.marks.flatMap(({ from, to }) =>
    flash.subarray(from, to).equals(scene.flashBefore.subarray(from, to))
      ? []
      : [`${from} to ${to}`],
  )
}

/** Marked customer ranges of which a byte can still be read; empty: all are gone. */
export function readableMarks(scene: Scene): readonly string[] {
  const flash = readFileSync(scene.flashPath)
  return scene.device.file.marks.flatMap(({ from, to }) =>
    flash.subarray(from, to).every((byte) => byte === 0) ? [] : [`${from} to ${to}`],
  )
}
