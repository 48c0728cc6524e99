/**
 * The simulated bench: ports that listen, devices that lie on it or hang on a cable, and what hands can
 * do with them. Reads device files from a folder; a port without a device that answers ends a stream at
 * once.
 */
import { readdirSync } from 'node:fs'
import { createServer } from 'node:net'
import type { AddressInfo, Server, Socket } from 'node:net'
import { join } from 'node:path'
import type { Duplex } from 'node:stream'
import type { StandInAct, StandInDevice } from '@plain-slate/api'
import type { Catalogue, Family, ImageFacts, Mode, Store, Permit, Way } from '@plain-slate/core'
import {
  answersIn,
  beginsIn,
  heldFor,
  installsByHand,
  isKind,
  kindOf,
  modeName,
  modeProfile,
} from '@plain-slate/core'
import type { ModelClock } from './clock.ts'
import { modelClock } from './clock.ts'
import { REFUSAL_TEXTS } from './answers.ts'
import type { ComputerAct, Computers } from './computer.ts'
import { computersOf } from './computer.ts'
import { SimulatedDevice } from './device.ts'
import { promptOf } from './device-events.ts'
import { extentsOf, readDevice, writeDevice } from './device-file.ts'
import { openFlash } from './flash.ts'
import { openStores } from './stores.ts'
import { endSoftly, serveStream } from './serve-stream.ts'

export type BenchPlan = {
  readonly folder: string
  readonly secret: string
  readonly pace: number
  /** Names of ports, with the TCP port each listens on; 0: a free one. */
  readonly ports: Readonly<Record<string, number>>
  readonly families: readonly Family[]
  /** What the makers have signed. */
  readonly images: readonly ImageFacts[]
  /** The files that tell of its computers, with the ports of each; of the last all that are left. None: nobody is told. */
  readonly computers?: readonly { readonly file: string; readonly ports: readonly string[] }[]
  /** What makers have permitted. */
  readonly permits?: readonly Permit[]
}

export type Bench = {
  /** The TCP port each port listens on. */
  readonly ports: Readonly<Record<string, number>>
  readonly devices: () => readonly SimulatedDevice[]
  readonly shown: () => readonly StandInDevice[]
  /** What hands do; a sentence when that cannot be done. */
  readonly act: (act: StandInAct) => string | undefined
  readonly stop: () => Promise<void>
}

type OnBench = {
  readonly device: SimulatedDevice
  readonly clock: ModelClock
  stream: Duplex | undefined
}

/** Opens every device of the folder and listens on every port. */
export async function openBench(plan: BenchPlan): Promise<Bench> {
  const catalogue: Catalogue = new Map(plan.images.map((facts) => [facts.image, facts]))
  const devices = readdirSync(plan.folder)
    .filter((name) => name.endsWith('.json'))
    .sort()
    .map((name) => openDevice(plan, catalogue, join(plan.folder, name)))
  const computers = computersOf(plan.computers, plan.families)
  const servers = await Promise.all(
    Object.entries(plan.ports).map(async ([name, port]) => {
      const server = createServer((socket) =>
        take({ devices, computers, secret: plan.secret, port: name }, socket),
      )
      return [name, server, await listening(server, port)] as const
    }),
  )
  return {
    ports: Object.fromEntries(servers.map(([name, , port]) => [name, port])),
    devices: () => devices.map(({ device }) => device),
    shown: () => devices.map(({ device, clock }) => shownOf(device, clock)),
    act: (act) => (isOfComputer(act) ? actOnIt(devices, computers, act) : actOn(devices, act)),
    async stop() {
      for (const one of devices) {
        one.device.leave()
        one.stream?.destroy()
      }
      await Promise.all(servers.map(([, server]) => closed(server)))
      for (const { device } of devices) device.flash.close()
    },
  }
}

function openDevice(plan: BenchPlan, catalogue: Catalogue, path: string): OnBench {
  const file = readDevice(path)
  const family = plan.families.find(({ id }) => id === file.family)
  if (family === undefined) throw new Error(`${path} is of a family nobody named: ${file.family}`)
  const flash = openFlash(path.replace(/\.json$/, '.flash'), file.diskBytes, extentsOf(file))
  const { scale, pick } = file
  const { permits = [] } = plan
  const nature = { family, catalogue, packages: new Map(), scale, pick, permits }
  const stores = openStores(path.replace(/\.json$/, '.files'))
  const device = new SimulatedDevice(file, nature, { flash, stores }, (kept) =>
    writeDevice(path, kept),
  )
  return {
    device,
    clock: modelClock(plan.pace, file.model.at, () => performance.now()),
    stream: undefined,
  }
}

type ThisPort = {
  readonly devices: readonly OnBench[]
  readonly computers: Computers
  readonly secret: string
  readonly port: string
}

const isHeardAt = (computers: Computers, { device }: OnBench): boolean =>
  device.port === null ||
  computers(device.port).hears(device.nature.family, device.model.mode, device.port)

const isOfComputer = (act: StandInAct): act is ComputerAct => !('serial' in act)

/** What is no longer heard is lost at once. */
function actOnIt(
  devices: readonly OnBench[],
  computers: Computers,
  act: ComputerAct,
): string | undefined {
  const why = computers('port' in act ? act.port : act.at).act(act)
  for (const one of devices) if (!isHeardAt(computers, one)) drop(one)
  return why
}

/** A stream on a port goes to the device that hangs there, if it answers. */
function take(at: ThisPort, socket: Socket): void {
  const { devices, secret, port } = at
  const there = devices.find(({ device }) => device.port === port)
  socket.on('error', () => socket.destroy())
  if (there === undefined || !isAwake(there) || !isHeardAt(at.computers, there))
    return void socket.destroy()
  socket.setNoDelay(true)
  const { device, clock } = there
  const met = (stream: Duplex, owns: boolean) => {
    const taken = there.stream !== undefined && !there.stream.closed && !there.stream.writableEnded
    if (taken && !owns) return false
    there.stream?.destroy()
    there.stream = stream
    return true
  }
  serveStream(socket, { device, clock, secret, met })
}

const isAwake = ({ device, clock }: OnBench): boolean =>
  answersIn(device.nature.family, device.model.mode) && isBack(device, clock)

/** A restart takes its time: the model is there already, the cable is not. */
const isBack = (device: SimulatedDevice, clock: ModelClock): boolean =>
  clock.pace === 0 || clock.now(0) >= device.awayUntil

function shownOf(device: SimulatedDevice, clock: ModelClock): StandInDevice {
  const { model, file } = device
  const { family } = device.nature
  const away = !isBack(device, clock)
  return {
    serial: model.serial,
    name: file.name,
    model: model.fused.model,
    port: device.port,
    mode: away ? null : shownMode(family, model.mode),
    battery: Math.round(model.battery),
    cellOut: device.cellOut,
    permission: model.permission,
    removable: family.cell === 'removable',
    canReset: !away && canReset(device),
    installs: away
      ? []
      : installsByHand(device.nature, model).map(({ from }) => shownStore(family, from)),
    asks: away ? null : (promptOf(family, model)?.text ?? null),
    account: model.account === 'on',
    lockSwitch: family.lock.opens === 'command' ? model.lockSwitch : null,
    pace: clock.pace,
    keys: away ? [] : keysOf(family, model.mode),
  }
}

const shownStore = ({ stores }: Family, id: Store) => ({
  id,
  name: stores.find((one) => one.id === id)?.name ?? id,
})

/** How long keys are held on a way, from and to. */
function heldBand({ acts = [] }: Way): [number, number] | null {
  const band = heldFor({ acts })
  return band === undefined ? null : [band[0], band[1]]
}

/** Where keys lead that were held for so long: let go too early or too late is the usual slip. */
function ledTo(
  family: Family,
  from: Mode,
  { to, held }: { readonly to: Mode; readonly held?: number },
): Mode {
  const way = family.ways.find((one) => one.hands && beginsIn(one, from) && one.to === to)
  const band = way && heldBand(way)
  const missed = held !== undefined && band && (held < band[0] || held > band[1])
  return missed ? (way.slip?.leads ?? from) : to
}

/** The ways that hands can go from a mode, in the family's words. */
const keysOf = (family: Family, mode: Mode) =>
  family.ways
    .filter((way) => way.hands && beginsIn(way, mode))
    .map((way) => ({
      to: shownMode(family, way.to),
      say: way.say,
      held: heldBand(way),
    }))

const shownMode = (family: Family, id: Mode) => ({
  id,
  name: modeName(family, id),
  kind: kindOf(family, id) ?? null,
})

function actOn(
  devices: readonly OnBench[],
  act: Exclude<StandInAct, ComputerAct>,
): string | undefined {
  const one = devices.find(({ device }) => device.model.serial === act.serial)
  if (one === undefined) return `There is no simulated device ${act.serial}.`
  const { device, clock } = one
  const now = clock.now(device.model.at)
  switch (act.kind) {
    case 'plug':
      return plugged(devices, one, act.port)
    case 'unplug':
      device.unplug()
      return drop(one)
    case 'cell-out':
      if (device.nature.family.cell === 'sealed') return 'Its cell does not come out by hand.'
      device.takeCellOut()
      return drop(one)
    case 'cell-in':
      device.putCellIn()
      return undefined
    case 'charge':
      if (modeProfile(device.nature.family, device.model.mode)?.charges !== true)
        return `It does not charge in this mode (${nameOf(device)}).`
      device.byHand({ kind: 'charge', percent: act.percent }, now)
      return undefined
    case 'keys': {
      const way = keysOf(device.nature.family, device.model.mode).find(({ to }) => to.id === act.to)
      if (way === undefined) return `From ${nameOf(device)} no keys lead to ${act.to}.`
      /* A chord from off is held while the cell goes in. */
      device.putCellIn()
      device.keys(ledTo(device.nature.family, device.model.mode, act), now)
      return drop(one)
    }
    case 'permit':
      if (!isKind(device.nature.family, device.model.mode, 'system'))
        return `Its settings cannot be reached in this mode (${nameOf(device)}).`
      device.byHand({ kind: 'permit', given: act.given }, now)
      return act.given ? undefined : drop(one)
    case 'reset':
      if (!canReset(device)) return `No reset can be asked of it in this mode (${nameOf(device)}).`
      device.byHand({ kind: 'reset' }, now)
      return drop(one)
    case 'lock-switch':
    case 'sign-out':
      return inSettings(device, act, now)
    case 'install':
      return installed(one, act.store, now)
    case 'confirm':
      if (promptOf(device.nature.family, device.model) === undefined) return 'It asks for nothing.'
      device.byHand({ kind: 'confirm' }, now)
      return undefined
    case 'cut':
      device.planCut({ piece: act.piece, bytes: act.bytes, kind: act.how, asked: act.asked })
      return undefined
  }
}

/** What its owner turns in its settings. */
function inSettings(
  device: SimulatedDevice,
  act: Extract<StandInAct, { kind: 'lock-switch' | 'sign-out' }>,
  now: number,
): string | undefined {
  if (act.kind === 'sign-out') {
    device.byHand({ kind: 'sign-out' }, now)
    return device.model.account === 'none'
      ? undefined
      : 'Its account stays on it: its settings are not reached in this mode.'
  }
  device.byHand({ kind: 'lock-switch', on: act.on }, now)
  return device.model.lockSwitch === act.on
    ? undefined
    : 'The switch stays as it is: greyed, or not to be found in this mode.'
}

function plugged(devices: readonly OnBench[], one: OnBench, port: string): string | undefined {
  const other = devices.find((two) => two !== one && two.device.port === port)
  if (other !== undefined) return `${port} holds ${other.device.model.serial}.`
  one.device.plug(port)
  return undefined
}

/** Started from its menu; while it installs nobody is heard on its cable. */
function installed(one: OnBench, store: Store, now: number): string | undefined {
  const { nature, model } = one.device
  if (!installsByHand(nature, model).some(({ from }) => from === store))
    return `Nothing is installed from there in this mode (${nameOf(one.device)}).`
  const code = one.device.installByHand(store, now)
  drop(one)
  return code === undefined ? undefined : REFUSAL_TEXTS[code]
}

/** A reset is found in the settings of a system that runs, on the page that asks for one, and in a rescue. */
const canReset = ({ nature: { family }, model: { mode } }: SimulatedDevice): boolean =>
  isKind(family, mode, 'system') || isKind(family, mode, 'rescue')

/** The mode it is in, as its family calls it. */
const nameOf = ({ nature, model }: SimulatedDevice): string => modeName(nature.family, model.mode)

/** The stream of a device that left its cable ends; what was said already arrives. */
function drop(one: OnBench): undefined {
  if (one.stream !== undefined) endSoftly(one.stream)
  one.stream = undefined
  return undefined
}

const listening = (server: Server, port: number): Promise<number> =>
  new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, '127.0.0.1', () => resolve((server.address() as AddressInfo).port))
  })

const closed = (server: Server): Promise<void> =>
  new Promise((resolve) => server.close(() => resolve()))
