/**
 * A whole shop for walks: real processes, devices of every family in many copies, people at browsers of their own and
 * somebody at the shell. Its clock is set on by its own row, never the machine's.
 */
import type { ApiError, StandInAct, StandInDevice } from '@plain-slate/api'
import { DEMO_PEOPLE, demoPersonAt } from '@plain-slate/demo'
import type { DemoDevice } from '@plain-slate/demo'
import pg from 'pg'
import type { Name } from '../bench/whole-shop.ts'
import { WholeShop } from '../bench/whole-shop.ts'
import { deviceOf } from '../bench/world.ts'

/** At browsers of their own; `shell`: a technician at the shell; `nobody`: who only may read the data folder. */
export const PEOPLE = ['Ilse', 'Tavi', 'Juno', 'shell'] as const
export type Who = (typeof PEOPLE)[number] | 'nobody'

/** An answer of the server, whatever it is. */
export type Told = { readonly status: number; readonly body: unknown }
export const isRefusal = (body: unknown): body is ApiError =>
  typeof body === 'object' && body !== null && 'sentence' in body && 'code' in body

/** What a walk works with: a device in as many copies as it takes, and the packages that are meant for it. */
export type Kind = {
  readonly family: string
  readonly like: string
  readonly serial: (n: number) => string
  readonly device: string
  readonly model: string
  readonly packages: readonly string[]
}
export const KINDS: readonly Kind[] = [
  {
    family: 'tarn',
    like: 'TRN4490077F31',
    serial: (n) => `TRN449${String(1000 + n)}J13`,
    device: 'Brakken H2K',
    model: 'BRAK-H2K',
    packages: ['tarn-loader-7-r4', 'tarn-H2.104.r4'],
  },
  {
    family: 'alder',
    like: 'COR4NB201406',
    serial: (n) => `COR4NB2${String(21_000 + n)}`,
    device: 'Alder 4',
    model: 'CORV-4N',
    packages: ['alder-20-2638.0-HO', 'alder-20-2640.1-HO'],
  },
  {
    family: 'fen',
    like: 'OST11A260407',
    serial: (n) => `OST11A2${String(71_000 + n)}`,
    device: 'Fen 11',
    model: 'OSTR-11A',
    packages: ['fen-FEN-26.21B-S'],
  },
]

export class LawShop {
  readonly whole: WholeShop
  readonly #ownUrl: string
  #pool: pg.Pool | undefined
  readonly #copies: number
  readonly #by = new Map<Who, Readonly<Record<string, string>>>()
  /** How far its clock was set on, ms. */
  ahead = 0
  /** Every answer that no input may bring about. */
  readonly faults: string[] = []
  asked = 0

  /** `copies`: devices of each kind. */
  constructor(databaseUrl: string, superuserUrl: string, copies: number) {
    this.whole = new WholeShop(databaseUrl, 0)
    this.#copies = copies
    const own = new URL(superuserUrl)
    own.pathname = new URL(databaseUrl).pathname
    this.#ownUrl = own.href
  }

  async open(): Promise<void> {
    const devices = KINDS.flatMap(({ like, serial }) =>
      Array.from({ length: this.#copies }, (_, n): DemoDevice => ({
        ...deviceOf(like),
        serial: serial(n),
        name: `copy ${n} of ${like}`,
        port: null,
      })),
    )
    await this.whole.open(
      KINDS.flatMap(({ packages }) => packages),
      [],
      { devices },
    )
  }

  async close(): Promise<void> {
    await this.#pool?.end()
    await this.whole.close()
  }

  /** As one of the people, or at the shell; nobody answers: undefined. */
  async ask(who: Who, method: string, path: string, body?: object): Promise<Told> {
    const told = await this.#ask(who, method, path, body)
    if (told.status !== 401 || who === 'nobody') return told
    await this.#signIn(who)
    return this.#ask(who, method, path, body)
  }

  async #ask(who: Who, method: string, path: string, body?: object): Promise<Told> {
    this.asked += 1
    const by = this.#by.get(who) ?? { authorization: `Bearer ${this.whole.secret}` }
    const response = await fetch(this.whole.address + path, {
      method,
      headers: { ...by, 'content-type': 'application/json' },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
    return this.#told(`${method} ${path} ${JSON.stringify(body)}`, response)
  }

  /** Bytes, as an archive or a catalogue is sent. */
  async upload(who: Who, path: string, bytes: Uint8Array): Promise<Told> {
    this.asked += 1
    const send = async () => {
      const by = this.#by.get(who) ?? { authorization: `Bearer ${this.whole.secret}` }
      const headers = { ...by, 'content-type': 'application/octet-stream' }
      const body = Buffer.from(bytes)
      const response = await fetch(this.whole.address + path, { method: 'POST', headers, body })
      return this.#told(`POST ${path}`, response)
    }
    const told = await send()
    if (told.status !== 401 || who === 'nobody') return told
    await this.#signIn(who)
    return send()
  }

  /** What it says; what no input may bring about is kept. */
  async #told(what: string, response: Response): Promise<Told> {
    const text = await response.text()
    if (response.status >= 500 && response.status !== 503)
      this.faults.push(`${what}: ${response.status} ${text}`)
    return { status: response.status, body: parsed(text) }
  }

  async #signIn(who: Exclude<Who, 'nobody'>): Promise<void> {
    if (who === 'shell') {
      this.#by.set(who, await demoPersonAt(this.whole.address, this.whole.secret, 'Pell'))
      return
    }
    const person = DEMO_PEOPLE.find(({ name }) => name.startsWith(who))
    const response = await fetch(`${this.whole.address}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'sec-fetch-site': 'same-origin' },
      body: JSON.stringify({ person: person?.id, pin: person?.pin }),
    })
    const cookie = response.headers.get('set-cookie')?.split(';')[0] ?? ''
    this.#by.set(who, { cookie, 'sec-fetch-site': 'same-origin' })
  }

  get = async <Body>(path: string): Promise<Body> =>
    (await this.ask('Ilse', 'GET', path)).body as Body

  hands = (act: StandInAct) => this.ask('shell', 'POST', '/api/bench/hands', act)
  devices = () => this.get<readonly StandInDevice[]>('/api/bench/hands')

  /** Dead, and begun again. */
  async killed(name: Name): Promise<void> {
    await this.whole.kill(name)
    await this.whole.begin(name)
  }

  /** The shop's clock is set on; its server reads that as it begins. */
  async ages(ms: number): Promise<void> {
    this.ahead += ms
    await this.sql('update plain_slate.shop set clock_offset_ms = clock_offset_ms + $1', [ms])
    await this.killed('server')
  }

  /** Whether no row is there: what is waited for is asked of the tables, which costs the server nothing. */
  async lacks(rows: string, ...values: readonly unknown[]): Promise<boolean> {
    return (await this.sql(`select 1 from plain_slate.${rows} limit 1`, values)).length === 0
  }

  /** As the superuser: only what the product itself never does. */
  async sql(text: string, values: readonly unknown[] = []): Promise<readonly object[]> {
    this.#pool ??= new pg.Pool({ connectionString: this.#ownUrl, max: 2 })
    return (await this.#pool.query<object>(text, [...values])).rows
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return text
  }
}
