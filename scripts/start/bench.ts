/**
 * The bench of a data folder: the simulated one of the demo, or the ports of real ones that a file on
 * this machine names. Lays out folders and files for the processes; the processes are services.
 */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import {
  DEMO_COMPUTER,
  DEMO_DEVICES,
  DEMO_PERMITS,
  DEMO_PACKAGES,
  DEMO_SCALE,
  ON_DEVICES_ONLY,
  demoFamilies,
  demoImages,
  familyNamed,
  makeDevice,
} from '@plain-slate/demo'
import { secretIn } from '../database/cluster.ts'
import { freePort } from '../machine/ports.ts'
import { nodeService } from '../process/node-service.ts'
import type { Service } from '../process/supervisor.ts'
import { logIn } from './folder.ts'

const PORTS = ['P1', 'P2', 'P3', 'P4', 'P5', 'P6'] as const

export type StandIns = {
  readonly service: Service
  /** The file from which the server reads where the control side is. */
  readonly controlFile: string
}

/** The simulated bench, its devices made the first time. Writes the agent's bench file too. */
export async function simulatedBench(dataFolder: string, pace: number): Promise<StandIns> {
  const folder = join(dataFolder, 'stand-ins')
  const devices = join(folder, 'devices')
  mkdirSync(devices, { recursive: true })
  for (const device of DEMO_DEVICES)
    if (!existsSync(join(devices, `${device.serial}.json`)))
      makeDevice(
        { folder: devices, family: familyNamed(device.line.family), scale: DEMO_SCALE },
        device,
      )
  const [control = 0, ...ports] = await freePorts(1 + PORTS.length)
  const listening = Object.fromEntries(PORTS.map((name, index) => [name, ports[index] ?? 0]))
  const file = {
    format: 'plain-slate/stand-in-bench@1',
    pace,
    ports: listening,
    families: demoFamilies(),
    images: imagesKept(folder),
    permits: DEMO_PERMITS,
  }
  writeFileSync(join(folder, 'bench.json'), JSON.stringify(file))
  const computer = join(folder, 'computer.json')
  if (!existsSync(computer)) writeFileSync(computer, JSON.stringify(DEMO_COMPUTER))
  secretIn(join(folder, 'link.secret'))
  const secret = secretIn(join(folder, 'control.secret'))
  const controlFile = join(folder, 'control')
  writeFileSync(controlFile, `http://127.0.0.1:${control}/\n${secret}\n`, { mode: 0o600 })
  writeBenchFile(dataFolder, listening)
  const service = nodeService({
    name: 'stand-ins',
    file: 'packages/standins/src/main.ts',
    args: [folder],
    env: { PLAIN_SLATE_CONTROL_PORT: String(control) },
    logFile: logIn(dataFolder, 'stand-ins'),
  })
  return { service, controlFile }
}

/** What the makers signed is computed once, from the images' bytes, and again when the demo has others. */
function imagesKept(folder: string): unknown {
  const path = join(folder, 'images.json')
  const of = JSON.stringify([DEMO_PACKAGES, ON_DEVICES_ONLY, DEMO_DEVICES])
  const kept = (existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : {}) as {
    readonly of?: string
    readonly images?: unknown
  }
  if (kept.of === of && kept.images !== undefined) return kept.images
  const images = demoImages()
  writeFileSync(path, JSON.stringify({ of, images }))
  return images
}

async function freePorts(count: number): Promise<readonly number[]> {
  const ports = new Set<number>()
  while (ports.size < count) ports.add(await freePort())
  return [...ports]
}

const benchFile = (dataFolder: string) => join(dataFolder, 'bench.json')

function writeBenchFile(dataFolder: string, ports: Readonly<Record<string, number>>): void {
  const named = Object.entries(ports).map(([name, port]) => [
    name,
    { address: `tcp:127.0.0.1:${port}` },
  ])
  const file = {
    format: 'plain-slate/bench@1',
    ports: Object.fromEntries(named) as object,
    computer: join('stand-ins', 'computer.json'),
  }
  writeFileSync(benchFile(dataFolder), JSON.stringify(file, undefined, 2))
}

/** The agent of this machine's ports; undefined while no file names any. */
export function agentService(
  dataFolder: string,
  address: string,
  vaultFolder: string,
): Service | undefined {
  if (!existsSync(benchFile(dataFolder))) return undefined
  const linkSecret = existsSync(join(dataFolder, 'stand-ins'))
    ? join(dataFolder, 'stand-ins', 'link.secret')
    : join(dataFolder, 'link.secret')
  secretIn(linkSecret)
  return nodeService({
    name: 'agent',
    file: 'packages/agent/src/main.ts',
    env: {
      PLAIN_SLATE_SERVER: address,
      PLAIN_SLATE_BENCH_SECRET: join(dataFolder, 'bench.secret'),
      PLAIN_SLATE_LINK_SECRET: linkSecret,
      PLAIN_SLATE_BENCH: benchFile(dataFolder),
      PLAIN_SLATE_AGENT_FOLDER: join(dataFolder, 'agent'),
      PLAIN_SLATE_VAULT: vaultFolder,
    },
    logFile: logIn(dataFolder, 'agent'),
  })
}
