/**
 * The bench of a data folder: the simulated one of the demo, or the ports of real ones that a file on
 * this machine names. Lays out folders and files for the processes; the processes are services.
 */
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
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
import { writeWhole } from '../machine/write-whole.ts'
import { nodeService } from '../process/node-service.ts'
import type { Service } from '../process/supervisor.ts'
import { logIn } from './folder.ts'

const PORTS = ['P1', 'P2', 'P3', 'P4', 'P5', 'P6'] as const

type DemoBench = {
  /** Files are called by it. */
  readonly key: string
  /** What people call it, where there is more than one. */
  readonly name: string
  readonly ports: readonly string[]
  readonly computer: typeof DEMO_COMPUTER
}
/** Nobody has put the driver of the tablets' rescue on the computer of the back room yet. */
const BENCHES: readonly DemoBench[] = [
  { key: 'bench', name: 'the front bench', ports: PORTS, computer: DEMO_COMPUTER },
  {
    key: 'bench-back',
    name: 'the back room',
    ports: ['back-P1', 'back-P2', 'back-P3'],
    computer: {
      ...DEMO_COMPUTER,
      drivers: DEMO_COMPUTER.drivers.filter(({ id }) => id !== 'fen-rescue'),
    },
  },
]
const computerOf = ({ key }: DemoBench): string =>
  key === 'bench' ? 'computer.json' : `${key}-computer.json`

export type StandIns = {
  readonly service: Service
  /** The file from which the server reads where the control side is. */
  readonly controlFile: string
}

/** The simulated bench, or two, its devices made the first time. Writes the agents' bench files too. */
export async function simulatedBench(
  dataFolder: string,
  { pace, benches: count }: { readonly pace: number; readonly benches: number },
): Promise<StandIns> {
  const folder = join(dataFolder, 'stand-ins')
  const devices = join(folder, 'devices')
  mkdirSync(devices, { recursive: true })
  for (const device of DEMO_DEVICES)
    if (!existsSync(join(devices, `${device.serial}.json`)))
      makeDevice(
        { folder: devices, family: familyNamed(device.line.family), scale: DEMO_SCALE },
        device,
      )
  const benches = BENCHES.slice(0, count)
  const names = benches.flatMap(({ ports }) => ports)
  const [control = 0, ...ports] = await freePorts(1 + names.length)
  const listening = Object.fromEntries(names.map((name, index) => [name, ports[index] ?? 0]))
  const file = {
    format: 'plain-slate/stand-in-bench@1',
    pace,
    ports: listening,
    families: demoFamilies(),
    images: imagesKept(folder),
    permits: DEMO_PERMITS,
    computers: benches.map((one) => ({ file: computerOf(one), ports: one.ports })),
  }
  writeWhole(join(folder, 'bench.json'), JSON.stringify(file))
  for (const one of benches) {
    const computer = join(folder, computerOf(one))
    if (!existsSync(computer)) writeWhole(computer, JSON.stringify(one.computer))
  }
  secretIn(join(folder, 'link.secret'))
  const secret = secretIn(join(folder, 'control.secret'))
  const controlFile = join(folder, 'control')
  writeWhole(controlFile, `http://127.0.0.1:${control}/\n${secret}\n`, 0o600)
  for (const one of BENCHES)
    if (benches.includes(one)) writeBenchFile(dataFolder, one, listening, benches.length > 1)
    else rmSync(benchFile(dataFolder, one), { force: true })
  const service = nodeService({
    name: 'stand-ins',
    file: 'packages/standins/dist/main.mjs',
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
  const kept = readKept(path)
  if (kept.of === of && kept.images !== undefined) return kept.images
  const images = demoImages()
  writeWhole(path, JSON.stringify({ of, images }))
  return images
}

/** What was kept; nothing where the file is not there or torn: it is computed again. */
function readKept(path: string): { readonly of?: string; readonly images?: unknown } {
  try {
    return JSON.parse(readFileSync(path, 'utf8')) as { readonly of?: string }
  } catch {
    return {}
  }
}

async function freePorts(count: number): Promise<readonly number[]> {
  const ports = new Set<number>()
  while (ports.size < count) ports.add(await freePort())
  return [...ports]
}

const benchFile = (dataFolder: string, { key }: Pick<DemoBench, 'key'>) =>
  join(dataFolder, `${key}.json`)

function writeBenchFile(
  dataFolder: string,
  bench: DemoBench,
  ports: Readonly<Record<string, number>>,
  isNamed: boolean,
): void {
  const named = bench.ports.map((name) => [name, { address: `tcp:127.0.0.1:${ports[name] ?? 0}` }])
  const file = {
    format: 'plain-slate/bench@1',
    ...(isNamed ? { bench: bench.name } : {}),
    ports: Object.fromEntries(named) as object,
    computer: join('stand-ins', computerOf(bench)),
  }
  writeWhole(benchFile(dataFolder, bench), JSON.stringify(file, undefined, 2))
}

/** The agents of this machine's ports, one a bench file. A shop of one's own has a bench from its first start on. */
export function agentServices(
  dataFolder: string,
  address: string,
  vaultFolder: string,
): readonly Service[] {
  const front = join(dataFolder, 'bench.json')
  const none = { format: 'plain-slate/bench@1', ports: {} }
  if (!existsSync(front)) writeWhole(front, JSON.stringify(none, undefined, 2))
  return BENCHES.filter((bench) => existsSync(benchFile(dataFolder, bench))).map((bench) =>
    agentService(dataFolder, bench, { address, vaultFolder }),
  )
}

function agentService(
  dataFolder: string,
  bench: DemoBench,
  { address, vaultFolder }: { readonly address: string; readonly vaultFolder: string },
): Service {
  const name = bench.key === 'bench' ? 'agent' : `agent-${bench.key}`
  const linkSecret = existsSync(join(dataFolder, 'stand-ins'))
    ? join(dataFolder, 'stand-ins', 'link.secret')
    : join(dataFolder, 'link.secret')
  secretIn(linkSecret)
  return nodeService({
    name,
    file: 'packages/agent/dist/main.mjs',
    env: {
      PLAIN_SLATE_SERVER: address,
      PLAIN_SLATE_BENCH_SECRET: join(dataFolder, 'bench.secret'),
      PLAIN_SLATE_LINK_SECRET: linkSecret,
      PLAIN_SLATE_BENCH: benchFile(dataFolder, bench),
      PLAIN_SLATE_OWN_PORTS: bench.key === 'bench' ? join(dataFolder, 'own-ports.json') : '',
      PLAIN_SLATE_AGENT_FOLDER: join(dataFolder, name),
      PLAIN_SLATE_VAULT: vaultFolder,
    },
    logFile: logIn(dataFolder, name),
  })
}
