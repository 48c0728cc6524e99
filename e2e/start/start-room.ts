/**
 * The start command as a process, on a data folder of its own and a free port: begun, ended, looked at from outside. What
 * works on the folder is found by what it names, so that nothing else is ever touched.
 */
import { spawn } from 'node:child_process'
import type { ChildProcess } from 'node:child_process'
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { demoPersonAt } from '@plain-slate/demo'
import { ROOT } from '../../scripts/bootstrap.mjs'
import { freePort } from '../../scripts/machine/ports.ts'
import { commandOf, lifeOf, waitUntil } from '../../scripts/process/alive.ts'
import type { Life } from '../../scripts/process/alive.ts'

export type Started = { readonly child: ChildProcess; readonly output: () => string }

/** A start that takes longer does not come up: the busiest disk let one take seven minutes. */
const PATIENCE_MS = 900_000

/** How the command is begun: what stands before it, and its environment. */
export type Begun = {
  readonly before?: readonly string[]
  readonly env?: NodeJS.ProcessEnv
}

/** A room for starts: everything of them lies in it. */
export class StartRoom {
  readonly room = mkdtempSync(join(tmpdir(), 'plain-slate-start-'))
  readonly folder = join(this.room, 'data')
  readonly port: number
  readonly address: string
  starting: Started | undefined
  #secretIn = this.folder
  #by: Promise<Readonly<Record<string, string>>> | undefined

  private constructor(port: number) {
    this.port = port
    this.address = `http://127.0.0.1:${port}`
    chmodSync(this.room, 0o755)
    mkdirSync(this.folder)
  }

  static async open(): Promise<StartRoom> {
    return new StartRoom(await freePort())
  }

  start(
    data: string,
    more: readonly string[] = [],
    { before = [], env = {} }: Begun = {},
  ): Started {
    const output: string[] = []
    const [program = '', ...args] = [
      ...before,
      ...['npm', 'start', '--silent', '--', '--port', String(this.port), '--data', data, ...more],
    ]
    const child = spawn(program, args, {
      cwd: ROOT,
      detached: true,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, ...env },
    })
    child.stdout.on('data', (text) => output.push(String(text)))
    child.stderr.on('data', (text) => output.push(String(text)))
    this.starting = { child, output: () => output.join('') }
    return this.starting
  }

  /** Begins it and waits until it is up, or has ended. */
  async started(
    data = this.folder,
    more: readonly string[] = [],
    begun: Begun = {},
  ): Promise<Started> {
    const one = this.start(data, more, begun)
    const up = () =>
      one.output().includes(more.includes('--empty') ? 'runs at' : 'PIN') ||
      one.child.exitCode !== null
    await waitUntil(up, PATIENCE_MS)
    return one
  }

  /** Every process that works in this room, found by what its command line or environment names. */
  ours(): Life[] {
    return readdirSync('/proc')
      .filter((name) => /^\d+$/.test(name) && Number(name) !== process.pid)
      .filter(
        (pid) =>
          commandOf(Number(pid)).includes(this.room) || environmentOf(pid).includes(this.room),
      )
      .map((pid) => lifeOf(Number(pid)))
      .filter((life) => life !== undefined)
  }

  processOf(part: string): Life {
    const found = this.ours().find(({ pid }) => commandOf(pid).includes(part))
    if (found === undefined) throw new Error(`no process of ${part}`)
    return found
  }

  ready = async (): Promise<boolean> => {
    const answer = await fetch(`${this.address}/api/ready`).catch(() => undefined)
    return answer?.status === 200
  }

  noneLeft = () => waitUntil(() => this.ours().length === 0, 60_000)

  /** What a terminal does: the signal goes to npm and to whatever shares its process group. */
  async ctrlC(): Promise<boolean> {
    const { pid, exitCode } = this.starting?.child ?? {}
    if (pid !== undefined && exitCode === null) process.kill(-pid, 'SIGINT')
    return this.noneLeft()
  }

  async close(): Promise<void> {
    await this.ctrlC()
    rmSync(this.room, { recursive: true, force: true })
  }

  /** Of a start whose folder lies on a disk that nobody else sees: where it is seen from outside. */
  secretIn(folder: string): void {
    this.#secretIn = folder
  }

  /** Asks the server: reads as the bench does, acts as the lead at the shell. */
  async asked<Body>(
    method: 'GET' | 'POST',
    path: string,
    body?: object,
  ): Promise<{ readonly status: number; readonly body: Body }> {
    const secret = readFileSync(join(this.#secretIn, 'bench.secret'), 'utf8').trim()
    const by =
      method === 'GET'
        ? { authorization: `Bearer ${secret}` }
        : await (this.#by ??= demoPersonAt(this.address, secret, 'Ilse'))
    const headers = { ...by, 'content-type': 'application/json' }
    const answer = await fetch(this.address + path, {
      method,
      headers,
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
    return { status: answer.status, body: (await answer.json()) as Body }
  }
}

const environmentOf = (pid: string): string => {
  try {
    return readFileSync(`/proc/${pid}/environ`, 'utf8')
  } catch {
    return ''
  }
}

/** What the shell tool says, on both of its streams. */
export function said(...args: string[]): Promise<string> {
  const tool = spawn('npx', ['--no', '--', 'plain-slate', ...args], { cwd: ROOT })
  let told = ''
  for (const stream of [tool.stdout, tool.stderr])
    stream.on('data', (text) => (told += String(text)))
  return new Promise((done) => tool.on('close', () => done(told)))
}
