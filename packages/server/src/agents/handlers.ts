/** Handlers that agents call: what is wanted, claims, leases, reports. Under the bench secret only. */
import { isDeepStrictEqual } from 'node:util'
import type { BodyOf, Contract, ShownRun, Work } from '@plain-slate/api'
import { LEASE_MS } from '@plain-slate/api'
import type { Result, StopReason } from '@plain-slate/core'
import { isStopOpen, leadsOf, ok, refuse } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import { WRITTEN } from '../edge/mount.ts'
import type { Handler } from '../edge/mount.ts'
import { streamTo } from '../events/stream.ts'
import type { Workshop } from '../base/workshop.ts'
import { lookEnded } from '../job/read.ts'
import { placesNow } from '../runs/places.ts'
import { followRun } from '../job/show.ts'
import { stopShortAt, stopWhereShort } from '../runs/charge.ts'
import { stopWhereSafe } from '../runs/held.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Transaction } from '../tables/database.ts'
import { portsOf } from '../tables/bench.ts'
import { heartOf, listComputers, listSights, putSights } from '../tables/devices.ts'
import type { LookRow } from '../tables/looks.ts'
import { listLooks } from '../tables/looks.ts'
import { tell } from '../tables/news.ts'
import { packagesHolding } from '../tables/packages.ts'
import { mirrorEntries, readJournal } from '../tables/journals.ts'
import type { RunState } from '../tables/runs.ts'
import { claimRun, listWork, readRun, renewRun, reportRun } from '../tables/runs.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

const lookWanted = ({ id, port, into, epoch, digests }: LookRow): Work['looks'][number] => ({
  id,
  port,
  into,
  epoch,
  digests: [...digests],
})

/** Everything under the bench secret that only agents call. Each is quick: nobody waits in one for a device. */
export function agentHandlers(workshop: Workshop) {
  const agentEvents: Of<'agentEvents'> = async ({ query, res }) => {
    await heartOf(workshop.db, query.agent, LEASE_MS)
    const streaming = streamTo(workshop, { personId: `agent ${query.agent}`, role: 'agent' }, res)
    return streaming ? ok(WRITTEN) : refuse({ code: 'events.full' })
  }
  const agentWork: Of<'agentWork'> = async () => {
    const [runs, looks] = await Promise.all([listWork(workshop.db), listLooks(workshop.db)])
    return ok({
      runs: runs.map((run) => ({
        id: run.id,
        serial: run.serial,
        port: run.port,
        wanted: run.wanted || (isStopOpen(run.stop) && !run.held),
        stop: isStopOpen(run.stop) ? run.stop.asked : 0,
        answers: { ...run.answers },
      })),
      looks: looks.map(lookWanted),
    })
  }
  const agentPorts: Of<'agentPorts'> = ({ body }) => takePorts(workshop, body)
  const agentLook: Of<'agentLook'> = async ({ body: { id, found } }) => {
    await lookEnded(workshop, id, found)
    return ok({})
  }
  const agentClaim: Of<'agentClaim'> = async ({ body: { agent, run: id } }) => {
    const epoch = await claimRun(workshop.db, id, agent, LEASE_MS)
    const run = epoch === undefined ? undefined : await readRun(workshop.db, id)
    if (epoch === undefined || run === undefined)
      return refuse({ code: 'run.driven', facts: { id } })
    const journal = [...(await readJournal(workshop.db, id))]
    await tell(workshop.db, 'run', id, run.version)
    const commands = [...run.commands]
    const { asked, met } = run.stop
    const stop = { asked, met }
    const places = await placesNow(run, (images) => packagesHolding(workshop.db, images))
    const family = workshop.families.find(({ id }) => id === run.plan.family)
    const leads = family === undefined ? [] : [...leadsOf(family)]
    return ok({ epoch, commands, journal, places, leads, shown: run.shown, stop })
  }
  const agentRenew: Of<'agentRenew'> = async ({ body: { agent, held } }) => {
    const still: string[] = []
    for (const one of held)
      if (await renewRun(workshop.db, { ...one, agent }, LEASE_MS)) still.push(one.run)
    return ok({ held: still })
  }
  const agentReport: Of<'agentReport'> = ({ body }) => takeReport(workshop, body)
  return { agentEvents, agentWork, agentPorts, agentLook, agentClaim, agentRenew, agentReport }
}

/** What an agent sees at its ports, and what its computer tells. */
async function takePorts(
  workshop: Workshop,
  { agent, ports, computer, whole }: BodyOf<Contract['agentPorts']>,
): ReturnType<Of<'agentPorts'>> {
  const told = (await listComputers(workshop.db)).find((one) => one.agent === agent)
  const before = new Map((await listSights(workshop.db)).map((one) => [one.port, one]))
  await putSights(workshop.db, agent, { ports, computer, whole }, LEASE_MS)
  const changed = ports.some(({ name, facts, odd }) => {
    const was = before.get(name)
    return !isDeepStrictEqual([was?.facts ?? null, was?.odd ?? null], [facts, odd])
  })
  const other = !isDeepStrictEqual(told?.computer ?? null, computer)
  if (changed || other) await tell(workshop.db, 'bench', agent, 1)
  const drained = ports.filter(
    ({ name, facts }) => facts?.batteryPercent !== before.get(name)?.facts?.batteryPercent,
  )
  await stopShortAt(
    workshop,
    drained.map(({ name }) => name),
  )
  return ok({ ports: [...(await portsOf(workshop.db, agent))] })
}

/** A report counts only while its epoch is the owner's. */
async function takeReport(
  workshop: Workshop,
  { agent, run, epoch, from, entries, heard, shown }: BodyOf<Contract['agentReport']>,
): Promise<Result<{ journal: number }, Refusal>> {
  const state = stateOf(shown)
  const taken = await workshop.db.transaction(async (trx) => {
    const endedAt = state === 'running' ? null : new Date(await workshop.clock.now())
    const was = await readRun(trx, run)
    const before = was?.shown ?? undefined
    const moved = before === undefined || hasMoved(before, shown)
    const report = { run, epoch, agent, shown, state, heard, endedAt, moved }
    const version = await reportRun(trx, report)
    if (version === undefined) return undefined
    await mirrorEntries(trx, run, from, entries)
    if (state !== 'running') await noteEnd(workshop, trx, run, shown)
    else if (was !== undefined && was.against !== null) await stopWhereSafe(workshop, trx, was)
    await tell(trx, ['run', 'bench'], run, version)
    return { isFurther: before?.next !== shown.next }
  })
  if (taken === undefined) return refuse({ code: 'run.driven', facts: { id: run } })
  /* Another step: what is left may draw another amount, and what was in doubt may be proven. */
  if (taken.isFurther) await stopWhereShort(workshop, run)
  if (state !== 'running') await followRun(workshop, run)
  return ok({ journal: (await readJournal(workshop.db, run)).length })
}

/** A byte more, a later time of the device's, another command, another sight of it. */
const hasMoved = (before: ShownRun, now: ShownRun): boolean =>
  before.got !== now.got ||
  before.at !== now.at ||
  before.next !== now.next ||
  JSON.stringify(before.waiting?.seen) !== JSON.stringify(now.waiting?.seen)

/** A run's state follows the phase its agent shows. That it is wanted is people's word, never an agent's. */
function stateOf(shown: ShownRun): Exclude<RunState, 'wanted'> {
  const { kind } = shown.phase
  return kind === 'ended' ? 'ended' : kind === 'stopped' ? 'stopped' : 'running'
}

/** A run that is over is entered in the book, with what it ended on. */
async function noteEnd(
  workshop: Workshop,
  trx: Transaction,
  id: string,
  shown: ShownRun,
): Promise<void> {
  const run = await readRun(trx, id)
  const { phase } = shown
  const why: StopReason | undefined = phase.kind === 'stopped' ? phase.why : undefined
  const facts = {
    run: id,
    serial: run?.serial ?? '',
    commands: shown.next,
    seconds: Math.round((shown.at - shown.runAt) / 1000),
    losses: shown.losses,
    ...(why === undefined ? {} : { why: why.kind === 'asked' && run?.low ? 'charge' : why.kind }),
  }
  const act = why === undefined ? 'run.ended' : 'run.stopped'
  const entry = { by: null, act, facts } as const
  await enter(workshop, trx, typeof run?.slip === 'string' ? { ...entry, slip: run.slip } : entry)
}
