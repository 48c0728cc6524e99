/**
 * A whole shop that is hurt on purpose: its processes killed and stopped, its database sent away, its disk
 * filled, its journals torn, its cables pulled. Everything that is hurt is healed before it answers.
 */
import { spawnSync } from 'node:child_process'
import { appendFileSync, cpSync, existsSync, readFileSync, rmSync, truncateSync } from 'node:fs'
import { createServer } from 'node:net'
import type { Server } from 'node:net'
import { join } from 'node:path'
import { readJournal } from '@plain-slate/agent'
import type { ApiError, RunShown, StandInDevice } from '@plain-slate/api'
import type { Catalogue } from '@plain-slate/core'
import { encodeFrame, frameDecoder, imageOn } from '@plain-slate/core'
import { DEMO_PEOPLE, demoImages } from '@plain-slate/demo'
import { readDevice } from '@plain-slate/standins'
import pg from 'pg'
import type { Name } from '../bench/whole-shop.ts'
import { LEAD, WholeShop, newestPackage } from '../bench/whole-shop.ts'

/** The run of the lead plan lasts about 12 model minutes: some three seconds, had nothing happened. */
export const PACE = 250
const catalogue: Catalogue = new Map(demoImages().map((facts) => [facts.image, facts]))

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
const AGENT = 'agent a'
/** Tries to begin a process before that is given up. */
const DEATHS_MOST = 5

export class FaultShop {
  readonly whole: WholeShop
  readonly #superuserUrl: string
  /** The superuser's address of the shop's own database. */
  readonly #ownUrl: string
  readonly #database: string
  #odd: Server | undefined
  #cookie = ''
  #marks: readonly string[] = []

  constructor(databaseUrl: string, superuserUrl: string) {
    this.whole = new WholeShop(databaseUrl, PACE)
    this.#database = new URL(databaseUrl).pathname.slice(1)
    const elsewhere = new URL(superuserUrl)
    elsewhere.pathname = 'postgres'
    this.#superuserUrl = elsewhere.href
    elsewhere.pathname = this.#database
    this.#ownUrl = elsewhere.href
  }

  /** Opens everything, with a device at P3 all along that says nothing but odd things. */
  async open(): Promise<void> {
    await this.whole.open()
    this.#marks = this.whole.flash(LEAD).marks
    await this.whole.kill('stand-ins')
    cpSync(this.#devices, `${this.#devices}.before`, { recursive: true })
    const port = this.whole.tcpPortOf('P3')
    this.#odd = await oddDevice(port)
    await this.whole.begin('stand-ins', { without: ['P3'] })
    await this.#signIn()
  }

  async close(): Promise<void> {
    this.#odd?.close()
    await this.whole.close()
  }

  get #devices(): string {
    return join(this.whole.folder, 'devices')
  }

  async #signIn(): Promise<void> {
    const [lead] = DEMO_PEOPLE
    const response = await fetch(`${this.whole.address}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'sec-fetch-site': 'same-origin' },
      body: JSON.stringify({ person: lead?.id, pin: lead?.pin }),
    })
    this.#cookie = response.headers.get('set-cookie')?.split(';')[0] ?? ''
  }

  /** As somebody at a browser; undefined while nobody answers, or not with JSON. */
  async ask<Body>(method: 'GET' | 'POST', path: string, body?: object): Promise<Body | undefined> {
    try {
      const response = await fetch(this.whole.address + path, {
        method,
        headers: {
          cookie: this.#cookie,
          'sec-fetch-site': 'same-origin',
          'content-type': 'application/json',
        },
        signal: AbortSignal.timeout(8000),
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      })
      return (await response.json()) as Body
    } catch {
      return undefined
    }
  }

  run = (id: string) => this.ask<RunShown | ApiError>('GET', `/api/runs/${id}`)

  /**
   * The lead device as it came in, on the bench again, at the end of a cable nobody has anything against:
   * after some dozens of losses the shop would rightly start nothing over it.
   */
  async resetDevice(): Promise<void> {
    const client = new pg.Client({ connectionString: this.#ownUrl })
    await client.connect()
    await client.query('update plain_slate.runs set cable = null where put_away')
    await client.end()
    await this.whole.kill('stand-ins')
    rmSync(this.#devices, { recursive: true })
    cpSync(`${this.#devices}.before`, this.#devices, { recursive: true })
    await this.alive()
    /* A session lasts some minutes; a thousand faults last longer. */
    await this.#signIn()
  }

  // What is done to it.

  async killed(name: Name): Promise<void> {
    await this.whole.kill(name)
    await this.alive()
  }

  /** Begins whatever is dead, as the start command does: again and again, until it stays up. */
  async alive(): Promise<void> {
    for (const name of ['server', 'stand-ins', AGENT] as const)
      for (let tried = 0; this.whole.pid(name) === undefined && tried < DEATHS_MOST; tried += 1)
        await this.#begin(name).catch(() => pause(500))
  }

  #begin = (name: Name): Promise<void> =>
    this.whole.begin(name, name === 'stand-ins' ? { without: ['P3'] } : {})

  async stopped(name: Name, ms: number): Promise<void> {
    this.whole.signal(name, 'SIGSTOP')
    await pause(ms)
    this.whole.signal(name, 'SIGCONT')
  }

  /** Nobody may connect to the database, and whoever was connected is thrown out. */
  async databaseAway(ms: number): Promise<void> {
    const client = new pg.Client({ connectionString: this.#superuserUrl })
    await client.connect()
    const allow = (may: boolean) =>
      client.query(`alter database ${this.#database} allow_connections ${String(may)}`)
    await allow(false)
    await client.query(
      'select pg_terminate_backend(pid) from pg_stat_activity where datname = $1',
      [this.#database],
    )
    await pause(ms)
    await allow(true)
    await client.end()
  }

  /** The agent may write no file past so many bytes (of its journal, that is) for a while. */
  async diskFull(id: string, room: number, ms: number): Promise<void> {
    const pid = this.whole.pid(AGENT)
    if (pid === undefined) return
    const limit = (bytes: string) =>
      spawnSync('prlimit', [`--pid=${pid}`, `--fsize=${bytes}:unlimited`])
    limit(String(this.journalBytes(id) + room))
    await pause(ms)
    limit('unlimited')
  }

  /** Dead with the last line of its journal torn off in the middle. */
  async tornJournal(id: string): Promise<void> {
    await this.whole.kill(AGENT)
    const path = this.#journal(id)
    if (existsSync(path)) truncateSync(path, Math.max(0, this.journalBytes(id) - 7))
    await this.alive()
  }

  /** Dead with an entry out of turn at the end of its journal: no run writes that. */
  async entryAstray(id: string): Promise<void> {
    await this.whole.kill(AGENT)
    const path = this.#journal(id)
    const astray = { kind: 'done', command: 900, evidence: 'astray' }
    if (existsSync(path)) appendFileSync(path, `${JSON.stringify(astray)}\n`)
    await this.alive()
  }

  cut = (how: 'cable' | 'battery' | 'computer', bytes: number) =>
    this.ask('POST', '/api/bench/hands', { kind: 'cut', serial: LEAD, piece: 1, bytes, how })

  /** What hands do so that the device can be met again: cable in, cell in, keys to the loader. */
  async hands(): Promise<void> {
    const devices = await this.ask<StandInDevice[] | ApiError>('GET', '/api/bench/hands')
    const lead = Array.isArray(devices) ? devices.find(({ serial }) => serial === LEAD) : undefined
    if (lead === undefined) return
    const act = (what: object) => this.ask('POST', '/api/bench/hands', { serial: LEAD, ...what })
    if (lead.port === null) await act({ kind: 'plug', port: 'P2' })
    if (lead.mode?.kind === 'off') await act({ kind: 'keys', to: 'loader' })
  }

  // What it is held against.

  #journal = (id: string): string => join(this.whole.agentFolder(AGENT), 'runs', `${id}.jsonl`)
  journalOf = (id: string) => readJournal(this.#journal(id))
  journalBytes = (id: string): number =>
    existsSync(this.#journal(id)) ? readFileSync(this.#journal(id)).length : 0

  /** What is wrong with the device: images not there, things of the customer's touched, map and bytes apart. */
  wrong(): readonly string[] {
    const { wrong, marks } = this.whole.flash(LEAD)
    const { model } = readDevice(join(this.#devices, `${LEAD}.json`))
    const pack = newestPackage()
    const apart = pack.images.filter(({ partition, sha256 }) => {
      const part = model.parts[partition]
      return part === undefined || imageOn(part, catalogue)?.image !== sha256
    })
    const touched = JSON.stringify(marks) === JSON.stringify(this.#marks) ? [] : ['customer data']
    return [
      ...wrong(pack).map((name) => `bytes of ${name}`),
      ...apart.map(({ partition }) => `map of ${partition}`),
      ...touched,
    ]
  }
}

/** Something at a port that answers every hello with facts no table can keep, or with none at all. */
async function oddDevice(port: number): Promise<Server> {
  let turn = 0
  const server = createServer((socket) => {
    const decoder = frameDecoder()
    socket.on('error', () => socket.destroy())
    socket.on('data', (bytes: Uint8Array) => {
      const frames = decoder.push(bytes)
      if (!frames.ok) return void socket.destroy()
      for (const { header } of frames.value) {
        turn += 1
        if (turn % 3 === 0) return
        const facts = {
          serial: turn % 3 === 1 ? 'ODD\u0000' : 'ODD-1',
          model: '\ud800',
          mode: 'loader',
        }
        socket.write(encodeFrame({ answer: 'facts', facts, id: header['id'] ?? 0, at: 1 }))
      }
    })
  })
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve))
  return server
}
