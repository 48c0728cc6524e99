/** A slip of a shop in whose place an agent is played: what people do with it, and what they are shown. */
import type { ApiError, Job, PlanPage, Ready, RunShown } from '@plain-slate/api'
import type { DeviceFacts, Fact, Source } from '@plain-slate/core'
import { packageKey } from '@plain-slate/core'
import { FAMILIES_FOLDER, digestOfVolume, sendVolume } from '@plain-slate/demo'
import type { Bench, Browser } from '@plain-slate/server/testing'
import { openBench } from '@plain-slate/server/testing'
import { agentSees, answerLook, atShell } from '@plain-slate/server/testing/agent'
import { INTAKE, SIGNED, linesOf } from './lines.ts'
import { built } from './whole-shop.ts'

const SHELVED = [
  'tarn-H2.0ZC.r4',
  'tarn-loader-7-r4',
  'tarn-H2.0ZP.r4',
  'tarn-H2.104.r4',
  'tarn-H2.104.r5',
]
/** The key of a package: its id and the beginning of its archive's digest. */
export function keyOf(name: string): string {
  const [first] = built(name).volumes
  if (first === undefined) throw new Error(`${name} has no volume`)
  return packageKey(name, digestOfVolume(first))
}
export const NEWEST = keyOf('tarn-H2.104.r4')

/** A shop with the tarn packages on its shelf. */
export async function shelvedBench(): Promise<Bench> {
  const none = (url: string) => Promise.resolve(url)
  const bench = await openBench('demo', none, { PLAIN_SLATE_FAMILIES: FAMILIES_FOLDER })
  const by = await atShell(bench.address)
  for (const name of SHELVED)
    for (const volume of built(name).volumes)
      await sendVolume(bench.address, by, volume, { whole: true, maker: 'Brakken' })
  return bench
}

type Finding = {
  rule: string
  code: string
  verdict: string
  facts: object
  remedy: { kind: string } | null
}
type Routes = {
  routes: {
    route: string
    package: string
    rehearsed: boolean
    verdict: string
    findings: Finding[]
    first: string[]
    wayBack: string | null
    ruler: { parts: { mark: string; to: string }[] } | null
  }[]
  left: { package: string; verdict: string; none: string | null; reason: Finding | null }[]
  blocked: { package: string; obstacles: { package: string; finding: Finding }[] }[]
  naming: number
}
/** A fresh slip with its own device, and what people do with it. */
export class Slip {
  readonly number: string
  readonly serial: string
  readonly port: string
  readonly #bench: Bench
  readonly #by: Browser
  constructor(bench: Bench, by: Browser, number: string, port: string) {
    this.#bench = bench
    this.#by = by
    this.number = number
    this.serial = `TRN${number}00${number}`
    this.port = port
  }
  static async open(bench: Bench, by: Browser, port: string): Promise<Slip> {
    const draft = { device: 'Brakken H2K', model: 'BRAK-H2K', intent: 'update' }
    const { body } = await by.post<{ number: string }>('/api/slips', draft)
    return new Slip(bench, by, body.number, port)
  }
  at = (path: string) => `/api/slips/${this.number}/${path}`
  job = async () => (await this.#by.get<Job>(this.at('job'))).body
  say = async (answers: Readonly<Record<string, string>>, who = this.#by) => {
    return (await who.post<Job & ApiError>(this.at('lines'), linesOf(answers))).body
  }
  takeIn = () => this.say(INTAKE)
  type = async (fact: Fact, value: string, source: Source) =>
    (await this.#by.post<Job & ApiError>(this.at('readings'), { fact, value, source })).body
  back = async (fact: Fact, value: string | number, source: Source) =>
    (await this.#by.post<Job & ApiError>(this.at('readings/back'), { fact, value, source })).body
  sees = (more: Partial<DeviceFacts> = {}) =>
    agentSees(this.#bench.address, this.port, { serial: this.serial, mode: 'normal', ...more })
  /** The agent tells what it finds, as readings of this slip. */
  async read(more: Partial<DeviceFacts> = {}, found: Parameters<typeof answerLook>[2] = {}) {
    const facts = { serial: this.serial, mode: 'normal', ...more } as const
    await this.sees(more)
    const asked = await this.#by.post<Job & ApiError>(this.at('read'), { port: this.port })
    if ('sentence' in asked.body) return asked.body
    await answerLook(this.#bench.address, facts, found)
    return (await this.#by.get<Job & ApiError>(this.at('job'))).body
  }
  /** Once each of them is rehearsed. */
  async routes(): Promise<Routes> {
    for (;;) {
      const { body } = await this.#by.get<Routes>(this.at('routes'))
      if (body.routes.every(({ rehearsed }) => rehearsed)) return body
      await new Promise((resolve) => setTimeout(resolve, 20))
    }
  }
  /** Every finding on one package. */
  why = async (pack: string) =>
    (
      await this.#by.get<{ findings: Finding[] }>(
        `${this.at('why')}?package=${encodeURIComponent(pack)}`,
      )
    ).body
  plan = async () => (await this.#by.get<PlanPage>(this.at('plan'))).body
  ready = async () => (await this.#by.get<Ready>(this.at('ready'))).body
  take = async (digest?: string) => {
    const now = digest ?? (await this.plan()).now?.digest ?? ''
    return (await this.#by.post<PlanPage & ApiError>(this.at('plan'), { digest: now })).body
  }
  start = async (digest: string) =>
    (await this.#by.post<RunShown & ApiError>(this.at('start'), { digest })).body
  /** As far as a taken plan. */
  async planned(): Promise<void> {
    await this.takeIn()
    await this.read()
    await this.say({ 'route.package': NEWEST, 'compare.unread': 'write-all' })
    await this.take()
  }
  sign = () => this.say(SIGNED)
}
/** A shelved bench with its lead and a technician, and a slip taken in and read, on which both work. */
export async function sharedSlip(more: Partial<DeviceFacts> = {}) {
  const bench = await shelvedBench()
  const [ilse, tavi] = [await bench.at('Ilse'), await bench.at('Tavi')]
  const slip = await Slip.open(bench, ilse, 'P1')
  await slip.takeIn()
  await slip.read(more)
  return { bench, ilse, tavi, slip }
}
export const is = (job: Job, stage: string) => job.stages.find((one) => one.stage === stage)?.is
export const fact = (job: Job, name: Fact) => job.facts.find((one) => one.fact === name)
