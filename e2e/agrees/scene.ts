/**
 * One device twice: as a twin, and simulated behind the link with real bytes. Makes both from the same
 * draft, runs the same plan on both with the same cut, and tells where they differ.
 */
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type {
  Case,
  Changing,
  Command,
  Cut,
  DeviceModel,
  Evidence,
  Family,
  JournalEntry,
  Manifest,
  Nature,
  Plan,
  Permit,
  Table,
  PlanWay,
  Reading,
  RunState,
  StopReason,
  Turn,
  Way,
} from '@plain-slate/core'
import {
  NO_HISTORY,
  USUAL_HOUSE,
  afterCut,
  begin,
  drive,
  factsOf,
  decodeBytes,
  flatten,
  identify,
  isChanging,
  isKind,
  leadsOf,
  makePlan,
  modeOf,
  modeTaking,
  ms,
  packagesOf,
  readingsOf as readingsOverLink,
  reduce,
  step,
  takeUp,
  waysByHand,
  withoutPower,
} from '@plain-slate/core'
import type { DemoDevice, Making } from '@plain-slate/demo'
import { DEMO_PERMITS, makeDevice } from '@plain-slate/demo'
import type { RunNews } from '@plain-slate/link'
import { driveRun } from '@plain-slate/link'
import type { Bench, SimulatedDevice } from '@plain-slate/standins'
import { openBench } from '@plain-slate/standins'
import type { ShelfAt } from './shelf.ts'

export const SECRET = 'a secret of the test'

export type Scene = {
  readonly bench: Bench
  readonly device: SimulatedDevice
  readonly nature: Nature
  readonly before: DeviceModel
  readonly flashBefore: Buffer
  /** Its own table, as it lies on its flash. */
  readonly table: Table
  readonly flashPath: string
  readonly shelf: ShelfAt
  readonly end: () => Promise<void>
}

/** What its maker permits a device of a scene. */
export const permitFor = (serial: string): Permit => ({
  id: `PM-${serial}`,
  device: serial,
  scope: 'service',
  until: '2026-12-31',
})

/** The device on a bench of its own, in port P1. */
export async function sceneOf(
  shelf: ShelfAt,
  draft: DemoDevice,
  tableOf?: Making['tableOf'],
): Promise<Scene> {
  const folder = mkdtempSync(join(tmpdir(), 'agrees-'))
  mkdirSync(folder, { recursive: true })
  const { family } = shelf
  const making = { folder, family, scale: shelf.scale }
  makeDevice(tableOf === undefined ? making : { ...making, tableOf }, { ...draft, port: 'P1' })
  const flashPath = join(folder, `${draft.serial}.flash`)
  const flashBefore = readFileSync(flashPath)
  const bench = await openBench({
    folder,
    secret: SECRET,
    pace: 0,
    ports: { P1: 0 },
    families: [family],
    images: [...shelf.catalogue.values()],
    permits: [...DEMO_PERMITS, permitFor(draft.serial)],
  })
  const [device] = bench.devices()
  if (device === undefined) throw new Error('no device')
  return {
    bench,
    device,
    nature: {
      ...device.nature,
      packages: packagesOf(shelf.shelf.map(({ manifest }) => manifest)),
    },
    before: device.model,
    flashBefore,
    table: tableOn(flashBefore, family.sectorBytes),
    flashPath,
    shelf,
    async end() {
      await bench.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

function tableOn(flash: Uint8Array, sectorBytes: number): Table {
  const decoded = decodeBytes(flash, sectorBytes)
  if (!decoded.ok) throw new Error('no table')
  return decoded.value.table
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
  readonly way: PlanWay | undefined
  readonly permit?: Permit
}

/** A plan for the device to a package, with some of its digests known. */
export function planFor(scene: Scene, { aim, way, ...wish }: Wish): Plan | undefined {
  const { nature, before, shelf } = scene
  const { family } = shelf
  const at: Case = {
    family,
    identity: identify(family, readingsOf(nature, before)),
    byEye: false,
    placeless: [],
    lines: undefined,
    history: NO_HISTORY,
    today: '2026-10-15',
    shelved: { key: aim.id, manifest: aim, state: 'published' },
    house: { ...USUAL_HOUSE, batteryMargin: 5 },
    ...wish,
    table: scene.table,
    shelf: shelf.shelf,
  }
  const { mode, permission } = before
  const made = makePlan({ at, mode, permission, ...(way === undefined ? {} : { way }) })
  return made.ok ? made.value : undefined
}

export type Ended = {
  readonly device: DeviceModel
  readonly journal: readonly JournalEntry[]
  readonly phase: RunState['phase']['kind']
  /** Why it stopped, where it did. */
  readonly why?: StopReason
}

/** What hands do after a cut: charge, plug, and the keys into the loader where the power went. */
const CHARGE = 90

/** Commands over the link that change the device: those that can be cut here. */
export const isChange = (
  command: Command | undefined,
): command is Exclude<Changing, { kind: 'person' }> =>
  command !== undefined && isChanging(command) && command.kind !== 'person'

/** Where nobody is heard before its set-up was gone through. */
const isWipedStart = (command: Command | undefined): boolean =>
  command?.kind === 'restart' && command.first === 'wiped'

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
  const bytes = command.kind === 'put' || command.kind === 'copy' ? command.size : Infinity
  const after = cut.bytes > bytes
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
  kind === 'battery' ? withoutPower(family, device) : device

/** Charged, and brought by its keys towards the mode in which the run goes on: it is told the rest by the run. */
function helpedUp(nature: Nature, device: DeviceModel, to: string | undefined): DeviceModel {
  const charged = step(nature, device, { kind: 'charge', percent: CHARGE }, device.at).device
  return waysUp(nature.family, charged, to).reduce(
    (so, way) => step(nature, so, { kind: 'keys', to: way.to }, so.at).device,
    charged,
  )
}

/** The ways from off to a mode as far as hands go them; to the first that writes, where none is wanted. */
function waysUp(family: Family, device: DeviceModel, to: string | undefined): readonly Way[] {
  const wanted = to ?? modeTaking(family, 'write') ?? ''
  const ways = waysByHand(family, device.mode, wanted, false) ?? []
  const told = ways.findIndex(({ hands }) => !hands)
  return told < 0 ? ways : ways.slice(0, told)
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
    if (news.kind === 'waiting' && runs && !device.model.permission) {
      if (device.model.key === 'asked') bench.act({ kind: 'confirm', serial })
      bench.act({ kind: 'permit', serial, given: true })
    }
    if (news.kind === 'waiting' && expected === 'lost' && (waits += 1) > 6) driving.abandon()
    if (news.kind !== 'turn' || news.state.phase.kind !== 'lost' || helped) return
    /* A start that wipes takes the link by itself: that is not the cut. */
    if (isWipedStart(commands[news.state.next])) return
    helped = true
    if (cut?.kind === 'computer') driving.abandon()
    if (cut?.kind === 'cable') bench.act({ kind: 'plug', serial, port: 'P1' })
    if (cut?.kind !== 'battery') return
    bench.act({ kind: 'charge', serial, percent: CHARGE })
    const wanted = modeOf(commands[news.state.next])
    for (const { to } of waysUp(family, device.model, wanted))
      bench.act({ kind: 'keys', serial, to })
  }
  const site = {
    address: { kind: 'tcp', host: '127.0.0.1', port: bench.ports['P1'] ?? 0 },
    secret: SECRET,
    run: 'test',
    bytes: scene.shelf.bytes,
    leads: leadsOf(family),
    journal: (entry: JournalEntry) => Promise.resolve(void journal.push(entry)),
    ask(command: Extract<Command, { kind: 'person' }>) {
      if (command.to !== undefined) bench.act({ kind: 'keys', serial, to: command.to })
      if (command.ask === 'reset') bench.act({ kind: 'reset', serial })
      if (command.ask === 'confirm' || command.ask === 'go-on')
        bench.act({ kind: 'confirm', serial })
      if (command.ask === 'install' && command.store !== undefined)
        bench.act({ kind: 'install', serial, store: command.store })
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
  const why = state.phase.kind === 'stopped' ? { why: state.phase.why } : {}
  return { device: device.model, journal, phase: state.phase.kind, ...why }
}
