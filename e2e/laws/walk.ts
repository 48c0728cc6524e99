/** A walk: acts of a seed's choosing on a device and a slip of its own, with every law asked after each of them. */
import type { Job, Ready, RunShown } from '@plain-slate/api'
import { diceOf } from '../faults/dice.ts'
import type { Act } from './act.ts'
import { doAct, soon } from './act.ts'
import { nextAct } from './choose.ts'
import type { Kind, LawShop, Told } from './law-shop.ts'
import { isRefusal } from './law-shop.ts'
import { LAWS } from './laws.ts'
import type { Law, Step } from './laws.ts'
import type { Memory, View } from './memory.ts'
import { newMemory, standsAgainst } from './memory.ts'

export type Broken = { readonly law: Law; readonly says: string; readonly after: number }
export type Walked = {
  readonly acts: readonly Act[]
  readonly broken: readonly Broken[]
  readonly memory: Memory
  /** How often each law had the chance to fail, by what it says. */
  readonly chances: ReadonlyMap<string, number>
  /** States that were met: of slip, stage and run. */
  readonly met: ReadonlySet<string>
}

/** Where acts come from: chosen as it goes, or given. */
export type Course = (memory: Memory, view: View, n: number) => Act | undefined

export const chosen = (seed: number, acts: number, hard: boolean): Course => {
  const dice = diceOf(seed)
  return (memory, view, n) => (n < acts ? nextAct(dice, memory, view, hard) : undefined)
}
export const given =
  (acts: readonly Act[]): Course =>
  (_, __, n) =>
    acts[n]

const NOTHING: View = {
  state: undefined,
  job: undefined,
  ready: undefined,
  run: undefined,
  alive: [],
  claims: [],
}

/** Walks a course to its end, or to the first law that is broken. */
export async function walk(
  shop: LawShop,
  about: { readonly kind: Kind; readonly serial: string; readonly port: string },
  course: Course,
): Promise<Walked> {
  const memory = newMemory(about.kind, about.serial, about.port)
  const acts: Act[] = []
  const broken: Broken[] = []
  const chances = new Map<string, number>()
  const met = new Set<string>()
  await doAct(shop, memory, NOTHING, { do: 'hands', act: 'plug' })
  let before = NOTHING
  for (let n = 0; broken.length === 0; n += 1) {
    const act = course(memory, before, n)
    if (act === undefined) break
    acts.push(act)
    memory.act = n
    const told = await doAct(shop, memory, before, act).catch((error: unknown) => ({
      status: 0,
      body: String(error),
    }))
    const hangs = await hangsAt(shop, act, told)
    const view = await seen(shop, memory, jobIn(act, told))
    remember(memory, view)
    const step: Step = { memory, before, act, told, view, now: Date.now() + shop.ahead, hangs }
    for (const law of LAWS) {
      const asked = law.ask(step)
      if (asked === 'no chance') continue
      chances.set(law.says, (chances.get(law.says) ?? 0) + 1)
      if (asked !== 'held') broken.push({ law, says: asked.broken, after: n })
    }
    meet(met, view, told)
    before = view
  }
  await over(shop, memory)
  return { acts, broken, memory, chances, met }
}

/** Where its device hangs, asked of the bench as a run was entered. */
async function hangsAt(
  shop: LawShop,
  act: Act,
  told: Told | undefined,
): Promise<string | null | undefined> {
  if (act.do !== 'start' || told?.status !== 200 || isRefusal(told.body)) return undefined
  /* A slip's device is the one that was read for it: another may have hung there then. */
  const run = told.body as RunShown
  return (await shop.devices()).find((one) => one.serial === run.serial)?.port ?? null
}

/** What is said is answered with the job as it stands after it. */
const jobIn = (act: Act, told: Told | undefined): Job | undefined =>
  told?.status === 200 && ['say', 'sign'].includes(act.do) ? (told.body as Job) : undefined

/** What stands now. */
async function seen(shop: LawShop, memory: Memory, known: Job | undefined): Promise<View> {
  const { number } = memory
  if (number === undefined) return NOTHING
  const at = `/api/slips/${number}`
  const whole = <Body>({ body, status }: Told): Body | undefined =>
    status === 200 && !isRefusal(body) ? (body as Body) : undefined
  const job = known ?? whole<Job>(await shop.ask('Ilse', 'GET', `${at}/job`))
  const ready =
    job === undefined || job.plan === null || job.run !== null
      ? undefined
      : whole<Ready>(await shop.ask('Ilse', 'GET', `${at}/ready`))
  const run =
    memory.run === undefined
      ? undefined
      : whole<RunShown>(await shop.ask('Ilse', 'GET', `/api/runs/${memory.run}`))
  const [alive, claims, [head]] = (await Promise.all([
    shop.sql(
      `select id, slip, serial, runs.state, against, slips.state as "slipState"
         from plain_slate.runs join plain_slate.slips on slips.number = slip
        where not put_away and runs.state <> 'ended'`,
    ),
    shop.sql(
      `select distinct slip from plain_slate.slip_readings
         join plain_slate.slips on slips.number = slip
        where fact = 'serial' and source = 'link' and value = to_jsonb($1::text) and state in ('open', 'waiting')`,
      [memory.serial],
    ),
    shop.sql('select state from plain_slate.slips where number = $1', [number]),
  ])) as unknown as [View['alive'], { slip: string }[], { state: string }[]]
  const claimed = claims.map(({ slip }) => slip)
  return { state: head?.state, job, ready, run, alive, claims: claimed }
}

/** Since when something stands against the work while its run lives. */
function remember(memory: Memory, view: View): void {
  const lives = view.alive.some(({ slip }) => slip === memory.number)
  const against = standsAgainst(memory)
  const started = memory.run === undefined ? undefined : view.run?.startedAt
  const isSaidSince =
    against !== undefined && started !== undefined && against.at >= Date.parse(started)
  memory.heldSince = lives && isSaidSince ? (memory.heldSince ?? memory.act) : undefined
}

function meet(met: Set<string>, { state, job, run }: View, told: Told | undefined): void {
  if (state !== undefined) met.add(`slip ${state}`)
  if (job !== undefined) met.add(`at ${job.at}`)
  if (run !== undefined) met.add(`run ${run.word}`)
  if (told !== undefined && isRefusal(told.body)) met.add(`refused ${told.body.code}`)
}

/** The run off its port, the slip over, the device on the shelf: the next walk has its own. */
async function over(shop: LawShop, { number, others, run, serial, port }: Memory): Promise<void> {
  if (run !== undefined) {
    const post = (word: string) => shop.ask('Ilse', 'POST', `/api/runs/${run}/${word}`, {})
    await post('stop')
    const drives = `runs where id = $1 and not put_away and state in ('wanted', 'running')`
    await soon(() => shop.lacks(drives, run))
    await post('put-away')
  }
  for (const one of [...others, ...(number === undefined ? [] : [number])])
    await shop.ask('Ilse', 'POST', `/api/slips/${one}/state`, {
      state: 'stopped',
      reason: 'the walk is over',
    })
  await shop.hands({ kind: 'hub', port, on: false })
  await shop.hands({ kind: 'cell-in', serial })
  await shop.hands({ kind: 'unplug', serial })
}
