/**
 * A technician at a whole shop, who does a job as the pages do it: takes it in, has it read, picks a route, takes its
 * plan, signs, starts, does what is asked of hands. Every refusal of the server is thrown as it is said.
 */
import type {
  ApiError,
  Job,
  PlanPage,
  Ready,
  RunShown,
  StandInAct,
  StandInDevice,
  WayShown,
} from '@plain-slate/api'
import type { Fact, Intent, Source } from '@plain-slate/core'
import { until } from '../bench/whole-shop.ts'
import type { WholeShop } from '../bench/whole-shop.ts'
import { INTAKE, linesOf } from '../bench/lines.ts'

export type Customer = {
  readonly device: string
  readonly model: string
  readonly intent: Intent
  /** What is answered otherwise than usual, by topic. */
  readonly answers?: Readonly<Record<string, string>>
}
type Finding = { readonly rule: string; readonly code: string; readonly verdict: string }
export type Roads = {
  readonly routes: readonly {
    readonly route: string
    readonly package: string
    readonly title: string
    readonly verdict: string
    readonly rehearsed: boolean
    readonly findings: readonly Finding[]
    readonly first: readonly { readonly title: string }[]
  }[]
  readonly cannot: { readonly title: string | null; readonly finding: Finding | null } | null
  readonly left: readonly { readonly title: string; readonly reason: Finding | null }[]
  readonly blocked: readonly {
    readonly package: string
    readonly title: string
    readonly obstacles: readonly { readonly finding: Finding }[]
  }[]
}

/** A sentence of the server's, thrown. */
export class Refused extends Error {
  override readonly name = 'Refused'
  readonly code: string
  constructor({ code, sentence }: Pick<ApiError, 'code' | 'sentence'>) {
    super(sentence)
    this.code = code
  }
}

/** What the tests of jobs answer to everything that nobody asks about, family by family. */
const USUAL: Readonly<Record<string, string>> = { ...INTAKE, 'survive.tickets': 'not-there' }

export class Technician {
  readonly number: string
  readonly serial: string
  port: string
  readonly #shop: WholeShop
  private constructor(shop: WholeShop, number: string, serial: string, port: string) {
    this.#shop = shop
    this.number = number
    this.serial = serial
    this.port = port
  }

  /** Opens a slip for a device, takes it in, and plugs it into a port. */
  static async takesIn(
    shop: WholeShop,
    customer: Customer,
    serial: string,
    port: string,
  ): Promise<Technician> {
    const { answers = {}, ...head } = customer
    const { number } = await asked<{ number: string }>(shop, 'POST', '/api/slips', head)
    const technician = new Technician(shop, number, serial, port)
    await technician.say({ ...USUAL, ...answers })
    await technician.triesLighter()
    await technician.plugsIn()
    return technician
  }

  /** What is lighter than firmware was tried first, and cured nothing. */
  async triesLighter(): Promise<void> {
    const { topics, lines } = await this.job()
    const open = topics.filter(
      ({ topic, group }) => group === 'lighter' && !lines.some((line) => line.topic === topic),
    )
    if (open.length > 0)
      await this.say(Object.fromEntries(open.map(({ topic }) => [topic, 'no-cure'])))
  }

  /** Takes it in and reads it: its facts, what is done before it leaves its system, what stands on it. */
  static async readsIn(...into: Parameters<typeof Technician.takesIn>): Promise<Technician> {
    const technician = await Technician.takesIn(...into)
    await technician.read()
    await technician.leaves()
    await technician.read(true)
    return technician
  }

  #at = (path: string) => `/api/slips/${this.number}/${path}`
  #get = <Body>(path: string) => asked<Body>(this.#shop, 'GET', this.#at(path))
  #post = <Body>(path: string, body: object) =>
    asked<Body>(this.#shop, 'POST', this.#at(path), body)

  hands: WholeShop['hands'] = (act) => this.#shop.hands(act)
  job = () => this.#get<Job>('job')
  ready = () => this.#get<Ready>('ready')
  plan = () => this.#get<PlanPage>('plan')
  carries = (archive: string, key: string) => this.#post<Job>('carry', { archive, package: key })
  say = (answers: Readonly<Record<string, string>>) => this.#post<Job>('lines', linesOf(answers))
  permit = (text: string) => this.#post<Job>('permit', { text })
  type = (fact: Fact, value: string, source: Source) =>
    this.#post<Job>('readings', { fact, value, source })

  /** It is at another port from now on. */
  async goesTo(port: string): Promise<void> {
    this.port = port
    await this.seen()
  }

  /** Plugs it into its port; whatever hung there is taken off. */
  async plugsIn(): Promise<void> {
    type Hands = readonly { readonly serial: string; readonly port: string | null }[]
    const devices = await asked<Hands>(this.#shop, 'GET', '/api/bench/hands')
    for (const { serial, port } of devices)
      if (port === this.port && serial !== this.serial) await this.hands({ kind: 'unplug', serial })
    await this.hands({ kind: 'plug', serial: this.serial, port: this.port })
  }

  /** Until the link sees it where it was plugged in. */
  seen = () =>
    until(`${this.serial} is seen`, async () => {
      const { seen } = await this.#shop.port(this.port)
      return seen?.serial === this.serial
    })

  /** Has it read over the link; `deep`: into a mode that shows what stands on it, and back. */
  async read(deep = false): Promise<Job> {
    await this.seen()
    const { look: before } = await this.job()
    await this.#post<Job>('read', deep ? { port: this.port, deep } : { port: this.port })
    let job = await this.job()
    await until('the look has ended', async () => {
      job = await this.job()
      return job.look !== null && job.look.id !== before?.id && job.look.state !== 'looking'
    })
    if (job.look?.state === 'failed') throw new Error(`the look: ${job.look.trouble ?? ''}`)
    return job
  }

  /** Before it leaves its running system. */
  leaves = () =>
    this.say({
      'ready.backup': 'opens',
      'ready.permission': 'done',
      'ready.accounts': 'done',
      'ready.restart': 'done',
    })

  /** Routes once each of them is rehearsed. */
  async routes(): Promise<Roads> {
    let roads: Roads | undefined
    await until('every route is rehearsed', async () => {
      roads = await this.#get<Roads>('routes')
      return roads.routes.every(({ rehearsed }) => rehearsed)
    })
    if (roads === undefined) throw new Error('no routes were told')
    return roads
  }

  /** The way into a mode from where it is said to be. */
  way = (to: string, from: string) => this.#get<WayShown>(`way?to=${to}&from=${from}`)

  /** Why a package is judged as it is. */
  why = (name: string) =>
    this.#get<{ verdict: string; findings: readonly Finding[] }>(
      `why?package=${encodeURIComponent(name)}`,
    )

  /** Picks a route by its name, or a package by the best route to it, and takes its plan. */
  async takes(route: string): Promise<PlanPage> {
    await this.say({ 'route.package': route, 'compare.unread': 'write-all' })
    const { now, why } = await this.plan()
    if (now === null) throw new Error(`no plan: ${why ?? 'nothing was picked'}`)
    return this.#post<PlanPage>('plan', { digest: now.digest })
  }

  /** Signs whatever is to be signed and is not; consents to every fate that the plan has. */
  async signs(): Promise<Ready> {
    const { signed } = await this.ready()
    const open = signed.filter((one) => !one.signed)
    const answerOf = ({ answers }: (typeof open)[number]): string =>
      ['opens', 'yes'].find((one) => answers.includes(one)) ?? answers[0] ?? ''
    if (open.length > 0)
      await this.say(Object.fromEntries(open.map((one) => [one.topic, answerOf(one)])))
    return this.ready()
  }

  /** Starts the plan that was taken; answers the run's id. */
  async starts(): Promise<string> {
    const { taken } = await this.plan()
    const run = await this.#post<RunShown>('start', { digest: taken?.digest ?? '' })
    return run.id
  }

  run = (id: string) => this.#shop.run(id)
  /** Goes on with a run at the port at which its device is seen now. */
  moves = (id: string, port: string) =>
    asked<RunShown>(this.#shop, 'POST', `/api/runs/${id}/move`, { port })

  /** Does what a run asks of hands until something is so. */
  async follows(id: string, what: string, is: (run: RunShown) => boolean): Promise<RunShown> {
    let last = await this.run(id)
    await until(what, async () => {
      last = await this.run(id)
      if (is(last)) return true
      const { asked: wanted, way } = last
      /* It runs, and nobody hears it: it waits for its key, or its link permission was never given. */
      const runs = last.waiting?.mode?.kind === 'system'
      if (wanted === null && runs && last.waiting?.seen === null) await this.startsUnheard()
      if (wanted === null) return false
      const act = await actFor(this.#shop, { ask: wanted.ask, to: way?.to.id }, this.serial)
      if (act !== undefined) await this.hands(act)
      await this.#shop.call('POST', `/api/runs/${id}/done`, { command: wanted.command })
      return false
    })
    return last
  }

  /** What the page says of a device that has started and is not seen: its key, then its link permission. */
  async startsUnheard(): Promise<void> {
    await this.hands({ kind: 'confirm', serial: this.serial })
    await this.hands({ kind: 'permit', serial: this.serial, given: true })
  }

  /** To the end of a run that is to come to its end. */
  async ends(id: string): Promise<RunShown> {
    const end = await this.follows(id, 'the run ends', ({ state }) =>
      ['ended', 'stopped'].includes(state),
    ).catch(async (error: unknown) => {
      const { step, steps, word, asked, waiting, why } = await this.run(id)
      const at = JSON.stringify({ step: steps[step - 1]?.kind, word, asked, waiting, why })
      throw new Error(`${String(error)}; it stands at ${at}`)
    })
    if (end.state !== 'ended') throw new Error(`stopped: ${JSON.stringify(end.why)}`)
    return end
  }

  /** Picks, plans, signs, starts, and goes to the end. */
  async does(route: string): Promise<RunShown> {
    await this.takes(route)
    await this.signs()
    return this.ends(await this.starts())
  }
}

/** What hands do at the device for what a run asks of them; of its menu they take whatever it can install. */
export async function actFor(
  shop: WholeShop,
  { ask, to }: { readonly ask: string; readonly to: string | undefined },
  serial: string,
): Promise<StandInAct | undefined> {
  if (ask !== 'install') return handsFor(ask, serial, to)
  const devices = await asked<readonly StandInDevice[]>(shop, 'GET', '/api/bench/hands')
  const [store] = devices.find((one) => one.serial === serial)?.installs ?? []
  return store && { kind: 'install', serial, store: store.id }
}

function handsFor(ask: string, serial: string, to: string | undefined): StandInAct | undefined {
  switch (ask) {
    case 'enter':
      return to === undefined ? undefined : { kind: 'keys', serial, to }
    case 'go-on':
    case 'confirm':
      return { kind: 'confirm', serial }
    case 'reset':
      return { kind: 'reset', serial }
    case 'lock-switch':
      return { kind: 'lock-switch', serial, on: true }
    case 'permission':
    case 'set-up':
      return { kind: 'permit', serial, given: true }
    default:
      return undefined
  }
}

async function asked<Body>(
  shop: WholeShop,
  method: 'GET' | 'POST',
  path: string,
  body?: object,
): Promise<Body> {
  const answer = await shop.call<Body & Partial<ApiError>>(method, path, body)
  const { code, sentence } = answer
  if (code !== undefined && sentence !== undefined) throw new Refused({ code, sentence })
  return answer
}
