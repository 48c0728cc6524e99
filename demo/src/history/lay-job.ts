/** Laying a slip's job out, act by act, each as an event of the demo's time. */
import type { Basis, Json, Ms } from '@plain-slate/core'
import { basisOf, ms, readingsOf } from '@plain-slate/core'
import type { ShopClock, Transaction } from '@plain-slate/server'
import {
  enter,
  figuresOf,
  insertLines,
  decisionFor,
  insertDocuments,
  insertPlan,
  insertReadings,
  keepLook,
  planOn,
  putDevice,
} from '@plain-slate/server'
import type { DemoName } from '../people.ts'
import { idOf } from '../people.ts'
import { caseOf, tarnFacts } from './devices.ts'
import type { Entered } from './enter-run.ts'
import { enterRun, idFor, secondsOfRun, tellEnd, tellStart } from './enter-run.ts'
import type { DemoJob } from './jobs.ts'
import { afterLines, backLines, intakeLines, reached, readyLines } from './jobs.ts'
import { pastRun } from './past-run.ts'

type At = { readonly clock: ShopClock }
export type Event = {
  readonly at: Ms
  readonly tell: (trx: Transaction, at: At) => Promise<unknown>
}
const MINUTE = 60_000
/** Journal entries that the run in doubt had come to: in the middle of main. */
export const CAME_TO = 40
const ITEMS = 96

/** Every act of a job, minutes after its slip was opened. */
export function jobEvents(job: DemoJob, opened: Ms, by: DemoName): readonly Event[] {
  const { number, far, facts } = job
  const after = (minutes: number, tell: Event['tell']): Event => ({
    at: ms(opened + minutes * MINUTE),
    tell,
  })
  const lines = (minutes: number, all: readonly (readonly [string, string])[]): Event =>
    after(minutes, (trx, at) => sayAll(trx, at, number, by, all))
  const tally = { items: ITEMS, bytes: ITEMS * 512 * 1024, opens: true }
  const look = (minutes: number, when: 'before' | 'after', more = {}): Event =>
    after(minutes, async (trx, at) => {
      const read = { ...facts, ...more }
      const found = { facts: read, digests: [], table: null, met: [], tally }
      await keepLook(house(at), trx, number, { found, when, by: idOf(by) })
      await putDevice(trx, read, found, new Date(await at.clock.now()))
    })
  const run = reached(far, 'running') ? runOf(job, opened, by) : undefined
  return [
    lines(4, intakeLines(job)),
    ...(job.typed === undefined ? [] : [after(6, (trx, at) => typeAll(trx, at, job, by))]),
    ...(reached(far, 'read') ? [look(5, 'before')] : []),
    ...(reached(far, 'picked') ? [lines(8, [['route.package', job.package]])] : []),
    ...(reached(far, 'accepted') ? [lines(9, [['compare.unread', 'write-all']])] : []),
    ...(reached(far, 'taken') ? [after(10, (trx, at) => take(trx, at, job, by))] : []),
    ...(job.later === undefined ? [] : [look(11, 'before', job.later)]),
    ...(reached(far, 'signed') ? [lines(12, readyLines)] : []),
    ...(run === undefined ? [] : runEvents(run, reached(far, 'ran'))),
    ...(reached(far, 'seen') ? [look(70, 'after', endedAs(job)), lines(71, afterLines)] : []),
    ...(reached(far, 'back') ? [lines(75, backLines(job))] : []),
  ]
}

/** What a device says once it has what was wanted. */
const endedAs = ({ facts }: DemoJob) =>
  tarnFacts({ serial: facts.serial, build: 'H2.104.r4', batteryPercent: 70 })

/** As much of a house as the acts here need. */
const house = (at: At) => at as Parameters<typeof keepLook>[0]

async function sayAll(
  trx: Transaction,
  at: At,
  slip: string,
  by: DemoName,
  lines: readonly (readonly [string, string])[],
): Promise<void> {
  const now = new Date(await at.clock.now())
  for (const [topic, answer] of lines) {
    await insertLines(trx, slip, [{ topic, answer, noteText: null, by: idOf(by), at: now }])
    await enter(at, trx, { by: idOf(by), act: 'slip.line', slip, facts: { topic, answer } })
  }
}

async function typeAll(trx: Transaction, at: At, job: DemoJob, by: DemoName): Promise<void> {
  const now = new Date(await at.clock.now())
  const slip = job.number
  for (const [fact, value, source] of job.typed ?? []) {
    await insertReadings(trx, slip, [{ fact, value, source, mode: null, by: idOf(by), at: now }])
    const facts = { fact, value, source }
    await enter(at, trx, { by: idOf(by), act: 'slip.reading', slip, facts })
  }
}

async function take(trx: Transaction, at: At, job: DemoJob, by: DemoName): Promise<void> {
  const found = caseOf(job.facts, 'update')
  const own = await figuresOf(trx, found.at.family.id)
  const planned = await planOn(found, { package: job.package, port: '' }, own)
  if (!planned.ok) throw new Error(`${job.number}: no plan`)
  const { plan, made, shown } = planned.value
  const packages = plan.packages.map(({ manifest }) => manifest.id)
  const basis: Basis = basisOf(found.at, found.mode, packages)
  const now = new Date(await at.clock.now())
  const { digest } = shown
  const { decision, documents } = decisionFor(
    { readings: readingsOf(job.facts), changed: {} },
    { plan, found },
  )
  await insertDocuments(trx, documents)
  await insertPlan(trx, job.number, {
    package: job.package,
    digest,
    mode: found.mode,
    basis,
    made: made as unknown as Json,
    decision,
    by: idOf(by),
    at: now,
  })
  const facts = { package: job.package, plan: digest, steps: shown.steps.length }
  await enter(at, trx, { by: idOf(by), act: 'plan.taken', slip: job.number, facts })
}

type Run = Entered & { readonly seed: number }

function runOf(job: DemoJob, opened: Ms, by: DemoName): Run {
  const seed = Number(job.number)
  const ended = reached(job.far, 'ran')
  const run = pastRun({ seed, facts: job.facts, package: job.package, faults: [] })
  return {
    seed,
    run,
    id: idFor(`run of ${job.number}`),
    slip: job.number,
    port: ended ? 'P1' : 'P6',
    cable: ended ? 'A' : 'E',
    by,
    startedAt: opened + 14 * MINUTE,
    putAway: ended,
    ...(ended ? {} : { upTo: CAME_TO }),
  }
}

function runEvents(run: Run, ended: boolean): readonly Event[] {
  const begin: Event = {
    at: ms(run.startedAt),
    async tell(trx, at) {
      await enterRun(trx, run)
      await tellStart(trx, at, run)
    },
  }
  if (!ended) return [begin]
  const over = ms(run.startedAt + secondsOfRun(run.run) * 1000)
  return [begin, { at: over, tell: (trx, at) => tellEnd(trx, at, run, run.seed) }]
}

/** The half year before: each run's beginning and end. */
export const pastEvents = (runs: readonly Run[]): readonly Event[] =>
  runs.flatMap((run) => runEvents(run, true))
