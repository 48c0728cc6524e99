/**
 * A whole shop of real processes on a database of its own: server, agents, simulated bench. Each can be
 * killed, paused and begun again, as it happens on benches.
 */
import type { ChildProcess } from 'node:child_process'
import { spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { Manifest } from '@plain-slate/core'
import type { ApiError, Bench, Job, PlanPage, RunShown, StandInAct } from '@plain-slate/api'
import type { PackageDraft } from '@plain-slate/demo'
import {
  DEMO_DEVICES,
  DEMO_PERMITS,
  FAMILIES_FOLDER,
  DEMO_PACKAGES,
  buildPackage,
  demoPersonAt,
  DEMO_KEYS,
  sendVolume,
} from '@plain-slate/demo'
import { flashOf } from './flash-of.ts'
import { benchFileFor } from './bench-files.ts'
import { freePorts } from './free-ports.ts'
import type { Added } from './world.ts'
import { draftNamed, familiesOf, imagesOf, makeDevices } from './world.ts'
import { INTAKE, SIGNED, linesOf } from './lines.ts'
import { until } from './until.ts'

export { until } from './until.ts'

const ROOT = fileURLToPath(new URL('../..', import.meta.url))
const SECRET = 'bench-secret'
export const LEAD = 'TRN4490077F31'
export const OTHER = 'TRN4490081C04'

/** `server b`: a second one on the same database and vault. */
export type Name = 'server' | 'server b' | 'stand-ins' | `agent ${string}`

const PORTS = ['P1', 'P2', 'P3', 'P4', 'P5', 'P6'] as const

export class WholeShop {
  readonly secret = SECRET
  readonly folder = mkdtempSync(join(tmpdir(), 'whole-shop-'))
  readonly #children = new Map<Name, ChildProcess>()
  #ports: Readonly<Record<string, number>> = {}
  #drafts: readonly PackageDraft[] = DEMO_PACKAGES
  readonly #databaseUrl: string
  readonly #pace: number

  readonly #isEmpty: boolean
  /** By what its acts are Ilse's, the lead's; in one begun empty nobody's. */
  by: Readonly<Record<string, string>> = { authorization: `Bearer ${SECRET}` }

  /** One begun empty knows no family, and its agent holds no port. */
  constructor(databaseUrl: string, pace: number, begun: 'demo' | 'empty' = 'demo') {
    this.#databaseUrl = databaseUrl
    this.#pace = pace
    this.#isEmpty = begun === 'empty'
  }

  get address(): string {
    return this.addressOf('server')
  }

  addressOf = (name: 'server' | 'server b'): string => `http://127.0.0.1:${this.#ports[name] ?? 0}`

  /** Lays everything out and begins it; shelves what is named. */
  async open(
    shelved = ['tarn-loader-7-r4', 'tarn-H2.104.r4'],
    serials: readonly string[] = [LEAD, OTHER],
    added: Added = {},
  ): Promise<void> {
    this.#drafts = [...DEMO_PACKAGES, ...(added.drafts ?? [])]
    const names = ['server', 'server b', 'control', ...PORTS] as const
    const ports = await freePorts(names.length)
    this.#ports = Object.fromEntries(names.map((name, index) => [name, ports[index] ?? 0]))
    const devices = join(this.folder, 'devices')
    mkdirSync(devices)
    makeDevices(devices, serials, added)
    for (const name of ['trust', 'families']) mkdirSync(join(this.folder, name))
    for (const [name, pem] of DEMO_KEYS) this.#write(`trust/${name}.pem`, pem())
    for (const one of ['link', 'control', 'bench']) this.#write(`${one}.secret`, `${one}-secret`)
    this.#write('run.json', JSON.stringify({ address: this.address }))
    this.#write('server.secrets', `cookie-secret\n${SECRET}\n`)
    this.#write('control', `http://127.0.0.1:${this.#ports['control'] ?? 0}/\ncontrol-secret\n`)
    const ofBench = Object.entries(this.#ports).filter(([name]) => name.startsWith('P'))
    const bench = {
      format: 'plain-slate/stand-in-bench@1',
      pace: this.#pace,
      ports: Object.fromEntries(ofBench),
      families: familiesOf(added),
      images: imagesOf(added),
      permits: DEMO_PERMITS,
    }
    this.#write('bench.json', JSON.stringify(bench))
    const named = ofBench.map(([name, port]) => [name, { address: `tcp:127.0.0.1:${port}` }])
    const file = {
      format: 'plain-slate/bench@1',
      ports: this.#isEmpty ? {} : (Object.fromEntries(named) as object),
      ...(this.#isEmpty ? {} : { computer: 'computer.json' }),
    }
    this.#write('agent.json', JSON.stringify(file))
    await Promise.all([this.begin('stand-ins'), this.begin('server')])
    if (!this.#isEmpty) this.by = await demoPersonAt(this.address, SECRET, 'Ilse')
    await this.begin('agent a')
    for (const name of shelved) await this.shelve(name)
    const port = DEMO_DEVICES.find(({ serial }) => serial === serials[0])?.port
    if (port === null || port === undefined || this.#isEmpty) return
    await until('the device is seen', async () => (await this.port(port)).seen !== null)
  }

  #write(name: string, text: string): void {
    writeFileSync(join(this.folder, name), text, { mode: 0o600 })
  }

  /** The TCP port on which a port of the bench listens. */
  tcpPortOf = (name: string): number => this.#ports[name] ?? 0

  /**
   * Begins a process, and waits until it says that it listens. `without`: ports of the bench at which
   * something else listens than the stand-ins.
   */
  async begin(
    name: Name,
    { without = [] }: { readonly without?: readonly string[] } = {},
  ): Promise<void> {
    if (without.length > 0) this.#leaveOut(without)
    const [file, env, args] = this.#planOf(name)
    /* Maps of sources cost at every error that is thrown: they are for whoever reads what is said. */
    const maps = process.env['SAY'] === undefined ? [] : ['--enable-source-maps']
    const child = spawn(process.execPath, [...maps, join(ROOT, file), ...args], {
      cwd: ROOT,
      env: { ...process.env, NODE_OPTIONS: '', ...env },
      stdio: ['ignore', 'pipe', process.env['SAY'] === undefined ? 'ignore' : 'inherit'],
    })
    this.#children.set(name, child)
    await new Promise<void>((resolve, reject) => {
      child.once('exit', (code) => reject(new Error(`${name} ended with ${code ?? ''}`)))
      child.stdout.on('data', (text: Buffer) => {
        if (text.toString().includes('listening')) resolve()
      })
    })
  }

  #leaveOut(names: readonly string[]): void {
    const path = join(this.folder, 'bench.json')
    const file = JSON.parse(readFileSync(path, 'utf8')) as { ports: Record<string, number> }
    const ports = Object.entries(file.ports).filter(([name]) => !names.includes(name))
    this.#write('bench.json', JSON.stringify({ ...file, ports: Object.fromEntries(ports) }))
  }

  #planOf(name: Name): readonly [string, NodeJS.ProcessEnv, readonly string[]] {
    const { folder } = this
    const vault = { PLAIN_SLATE_VAULT: join(folder, 'vault') }
    mkdirSync(vault.PLAIN_SLATE_VAULT, { recursive: true })
    if (name === 'stand-ins')
      return [
        'packages/standins/dist/main.mjs',
        { PLAIN_SLATE_CONTROL_PORT: String(this.#ports['control']) },
        [folder],
      ]
    if (name === 'server' || name === 'server b')
      return [
        'packages/server/dist/main.mjs',
        {
          ...vault,
          DATABASE_URL: this.#databaseUrl,
          PLAIN_SLATE_PORT: String(this.#ports[name]),
          PLAIN_SLATE_SECRETS: join(folder, 'server.secrets'),
          PLAIN_SLATE_FAMILIES: this.#isEmpty ? join(folder, 'families') : FAMILIES_FOLDER,
          PLAIN_SLATE_STANDINS: join(folder, 'control'),
          PLAIN_SLATE_TRUST: join(folder, 'trust'),
          PLAIN_SLATE_LOG: 'error',
        },
        [],
      ]
    return [
      'packages/agent/dist/main.mjs',
      {
        ...vault,
        PLAIN_SLATE_SERVER: this.address,
        PLAIN_SLATE_BENCH_SECRET: join(folder, 'bench.secret'),
        PLAIN_SLATE_LINK_SECRET: join(folder, 'link.secret'),
        PLAIN_SLATE_BENCH: benchFileFor(folder, name),
        PLAIN_SLATE_AGENT_FOLDER: this.agentFolder(name),
        PLAIN_SLATE_GLANCE_MS: '500',
      },
      [],
    ]
  }

  agentFolder = (name: Name): string => join(this.folder, name.replace(' ', '-'))

  /** The number of a process that runs; undefined: it does not. */
  pid(name: Name): number | undefined {
    const child = this.#children.get(name)
    return child?.exitCode === null && child.signalCode === null ? child.pid : undefined
  }

  signal(name: Name, signal: NodeJS.Signals): void {
    this.#children.get(name)?.kill(signal)
  }

  /** Kills a process and waits until it is gone. */
  async kill(name: Name): Promise<void> {
    const child = this.#children.get(name)
    if (child === undefined || child.exitCode !== null || child.signalCode !== null) return
    const gone = new Promise((resolve) => child.once('exit', resolve))
    child.kill('SIGKILL')
    await gone
  }

  call = <Body>(method: 'GET' | 'POST', path: string, body?: object): Promise<Body> =>
    this.callAt<Body>('server', method, path, body)

  /** The same at one of two servers. */
  async callAt<Body>(
    name: 'server' | 'server b',
    method: 'GET' | 'POST',
    path: string,
    body?: object,
  ): Promise<Body> {
    const ask = () =>
      fetch(this.addressOf(name) + path, {
        method,
        headers: { ...this.by, 'content-type': 'application/json' },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      })
    /* A connection that was kept may be closed as it is used again; what only reads is asked again. */
    const response = await ask().catch((error: unknown) => {
      if (method === 'GET' && this.pid(name) !== undefined) return ask()
      throw error
    })
    return (await response.json()) as Body
  }

  /** Sends a package of the demo, or some of its volumes, and waits until they were read. */
  async shelve(name: string, which: (volume: number) => boolean = () => true): Promise<void> {
    const draft = draftNamed(name, this.#drafts)
    for (const volume of buildPackage(draft).volumes.filter((_, at) => which(at))) {
      await sendVolume(this.address, this.by, volume, {
        whole: draft.truncatedTo === undefined,
        maker: draft.line.maker,
      })
      await until(`${volume.file} is read`, async () =>
        (await this.shelf()).archives.some(
          (one) => one.name === volume.file && one.state !== 'reading',
        ),
      )
    }
  }

  /** Sends an archive that no maker vouches for, and waits until it was read; answers its id. */
  async sends(file: string, bytes: Uint8Array): Promise<string> {
    const volume = { file, bytes: bytes.length, chunks: () => [bytes] }
    await sendVolume(this.address, this.by, volume, { whole: false, maker: '' })
    const as = file.replace(/\.img$/, '.tar')
    const found = async () => (await this.shelf()).archives.find(({ name }) => name === as)
    await until(`${file} is read`, async () => (await found())?.state === 'whole')
    return (await found())?.id ?? ''
  }

  shelf = () =>
    this.call<{
      packages: { id: string; state: string }[]
      archives: {
        id: string
        name: string
        state: string
        sha256: string
        refusal: { entry: string; offset: number; rule: string } | null
      }[]
    }>('GET', '/api/shelf')

  async port(name: string) {
    const { ports } = await this.call<Bench>('GET', '/api/bench')
    const port = ports.find((one) => one.name === name)
    if (port === undefined) throw new Error(`no port ${name}`)
    return port
  }

  hands = (act: StandInAct) => this.call<{ done: boolean }>('POST', '/api/bench/hands', act)

  /** A slip for the device at a port, or the one it has: the newest package's plan taken, everything signed. */
  async ready(
    port = 'P2',
    its?: string,
  ): Promise<{ readonly number: string; readonly digest: string }> {
    const number = its ?? (await this.#opened())
    const at = `/api/slips/${number}`
    await this.read(`${at}/read`, port, `${at}/job`)
    const route = { 'route.package': 'tarn-H2.104.r4', 'compare.unread': 'write-all' }
    await this.call('POST', `${at}/lines`, linesOf({ ...INTAKE, ...route }))
    const { now, why } = await this.call<PlanPage>('GET', `${at}/plan`)
    if (now === null) throw new Error(`no plan: ${why ?? 'nothing picked'}`)
    const { digest } = now
    await this.call('POST', `${at}/plan`, { digest })
    await this.call('POST', `${at}/lines`, linesOf(SIGNED))
    return { number, digest }
  }

  /** Has the device at a port read, and waits until the look has ended. */
  async read(path: string, port: string, job: string, deep = false): Promise<void> {
    await this.call('POST', path, deep ? { port, deep } : { port })
    await until('the device is read', async () => {
      const { look } = await this.call<{ look: Job['look'] }>('GET', job)
      return look?.state !== 'looking'
    })
  }

  async #opened(): Promise<string> {
    const draft = { device: 'Brakken H2K', model: 'BRAK-H2K', intent: 'update' }
    return (await this.call<{ number: string }>('POST', '/api/slips', draft)).number
  }

  /** Plans the newest package for the lead device on a slip of its own, and starts it. */
  async start(): Promise<string> {
    const { number, digest } = await this.ready()
    const run = await this.call<RunShown | ApiError>('POST', `/api/slips/${number}/start`, {
      digest,
    })
    if ('sentence' in run) throw new Error(run.sentence)
    return run.id
  }

  run = (id: string) => this.call<RunShown>('GET', `/api/runs/${id}`)
  takeUp = (id: string) => this.call<RunShown>('POST', `/api/runs/${id}/take-up`, {})

  /** Does what the run asks of hands until something is so. */
  async follow(id: string, what: string, is: (run: RunShown) => boolean): Promise<RunShown> {
    let last: RunShown | undefined
    await until(what, async () => {
      last = await this.run(id)
      const { asked } = last
      if (asked?.ask === 'go-on') await this.hands({ kind: 'confirm', serial: last.serial })
      if (asked !== null)
        await this.call('POST', `/api/runs/${id}/done`, { command: asked.command })
      return is(last)
    })
    if (last === undefined) throw new Error('never looked')
    return last
  }

  /** What the flash of a device holds, against a package's images and against what was there. */
  flash = (serial: string) => flashOf(join(this.folder, 'devices', serial))

  async close(): Promise<void> {
    for (const name of this.#children.keys()) {
      this.signal(name, 'SIGCONT')
      await this.kill(name)
    }
    rmSync(this.folder, { recursive: true, force: true })
  }
}

/** A package of the demo, built. */
export const built = (name: string) => buildPackage(draftNamed(name))
export const newestPackage = (): Manifest => built('tarn-H2.104.r4').manifest
