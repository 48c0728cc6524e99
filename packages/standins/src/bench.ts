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
import type { Catalogue, Family, ImageFacts, Permit } from '@plain-slate/core'
import { answersIn } from '@plain-slate/core'
import { actOn } from './act.ts'
import { modelClock } from './clock.ts'
import type { ComputerAct, Computers } from './computer.ts'
import { computersOf } from './computer.ts'
import { SimulatedDevice } from './device.ts'
import { extentsOf, readDevice, writeDevice } from './device-file.ts'
import { layBeside } from './faults.ts'
import { openFlash } from './flash.ts'
import type { OnBench } from './on-bench.ts'
import { drop, isBack } from './on-bench.ts'
import { serveStream } from './serve-stream.ts'
import { shownOf } from './shown.ts'
import { openStores } from './stores.ts'

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
  const hubAt = (port: string) => computers(port).hasHub(port)
  return {
    ports: Object.fromEntries(servers.map(([name, , port]) => [name, port])),
    devices: () => devices.map(({ device }) => device),
    shown: () => devices.map(shownOf),
    act: (act) => {
      if (isOfComputer(act)) return actOnIt(devices, computers, act)
      if (act.kind !== 'like') return actOn(devices, hubAt, act)
      const one = devices.find(({ device }) => device.model.serial === act.serial)
      if (one === undefined) return `There is no simulated device ${act.serial}.`
      const serials = devices.map(({ device }) => device.model.serial)
      devices.push(openDevice(plan, catalogue, layBeside(one, serials)))
      return undefined
    },
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
    path,
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
  /* Where the hub is taken away one stays on the cable, and the others lie beside it. */
  if (act.kind === 'hub' && !act.on)
    for (const one of devices.filter(({ device }) => device.port === act.port).slice(1)) {
      one.device.unplug()
      drop(one)
    }
  for (const one of devices) if (!isHeardAt(computers, one)) drop(one)
  return why
}

/** A stream on a port goes to the device that hangs there, if it answers; behind a hub to the first that does. */
function take(at: ThisPort, socket: Socket): void {
  const { devices, secret, port } = at
  const there = devices.find(
    (one) => one.device.port === port && isAwake(one) && isHeardAt(at.computers, one),
  )
  socket.on('error', () => socket.destroy())
  if (there === undefined) return void socket.destroy()
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

const listening = (server: Server, port: number): Promise<number> =>
  new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, '127.0.0.1', () => resolve((server.address() as AddressInfo).port))
  })

const closed = (server: Server): Promise<void> =>
  new Promise((resolve) => server.close(() => resolve()))
