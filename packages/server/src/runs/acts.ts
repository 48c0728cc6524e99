/** What people do with runs: start, say that hands are done, stop, take up, go on at another port, put away. */
import { randomUUID } from 'node:crypto'
import type { Ask, BookAct, Command, Plan, Result } from '@plain-slate/core'
import { READINESS, flatten, ok, refuse } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import { hangRuns, listPorts } from '../tables/bench.ts'
import { anyAgent, forgetDigests, listSights } from '../tables/devices.ts'
import type { Transaction } from '../tables/database.ts'
import { tell } from '../tables/news.ts'
import { readJournal } from '../tables/journals.ts'
import type { PlaceRow } from '../tables/run-begun.ts'
import type { RunRow } from '../tables/runs.ts'
import {
  answerRun,
  askStop,
  freePort,
  insertRun,
  moveRunTo,
  readRun,
  wishRun,
} from '../tables/runs.ts'
import { lockSlip } from '../tables/slips.ts'
import { aliveRuns, lockDevice } from '../tables/alive.ts'
import { livesRefusal } from '../base/lives.ts'
import { tooShort } from './charge.ts'
import { againstGoingOn } from './held.ts'
import { holdOf, isLeft, phaseOf } from './show.ts'
import type { Planned } from '../plans/plan.ts'

/** What a run is entered with, beside its plan. */
export type StartAsked = {
  readonly port: string
  readonly package: string
  /** Of the plan that was shown. */
  readonly digest: string
  readonly slip: string
  readonly by: string | null
  /** What people signed for it before: it is not asked again. */
  readonly signed: string
  /** The gate, asked once more under the slip's lock: nobody says anything between it and the start. */
  readonly gate: (trx: Transaction) => Promise<Refusal | undefined>
}

/**
 * Enters the run of a plan, for an agent to claim. Whether it may start is not asked here: only the one
 * gate of a slip's job (`job/start.ts`) calls this.
 */
export async function enterRun(
  workshop: Workshop,
  planned: Planned,
  asked: StartAsked,
): Promise<Result<RunRow, Refusal>> {
  const { plan, shown, found, steps } = planned
  if (shown.digest !== asked.digest)
    return refuse({ code: 'plan.changed', facts: { title: shown.title } })
  const port = (await listPorts(workshop.db)).find(({ name }) => name === asked.port)
  if (port === undefined) return refuse({ code: 'port.unknown', facts: { port: asked.port } })
  const id = randomUUID()
  const { commands } = flatten(plan)
  const refused = await workshop.db.transaction(async (trx): Promise<Refusal | undefined> => {
    await lockSlip(trx, asked.slip)
    await lockDevice(trx, plan.serial)
    const [other] = await aliveRuns(trx, { serial: plan.serial })
    if (other !== undefined) return livesRefusal(other.slip ?? asked.slip, other)
    const shut = await asked.gate(trx)
    if (shut !== undefined) return shut
    const entered = await insertRun(trx, {
      id,
      slip: asked.slip,
      serial: plan.serial,
      port: asked.port,
      cable: port.cable,
      package: asked.package,
      plan,
      commands,
      steps,
      places: placesOf(planned),
      wall: shown.wall.partitions,
      answers: answersOf(commands, asked.signed),
      by: asked.by,
      startedAt: new Date(await workshop.clock.now()),
    })
    if (!entered) return { code: 'port.busy', facts: { port: asked.port } }
    await forgetDigests(trx, found.facts.serial)
    await note(workshop, trx, id, 'run.started', asked.by, asked.slip, {
      serial: plan.serial,
      port: asked.port,
      package: asked.package,
      plan: shown.digest,
    })
    return undefined
  })
  return refused === undefined ? runNow(workshop, id) : refuse(refused)
}

const isReadiness = (ask: Ask): boolean => READINESS.some((one) => one === ask)

/** What was signed for before: what is made ready, and nothing that hands do while it runs. */
const answersOf = (
  commands: readonly Command[],
  signed: string,
): Readonly<Record<string, string>> =>
  Object.fromEntries(
    commands.flatMap((command, index) =>
      command.kind === 'person' && isReadiness(command.ask) ? [[String(index), signed]] : [],
    ),
  )

/** Where the bytes of every image of the plan lie. */
const placesOf = ({ plan, found }: Planned): readonly PlaceRow[] => [
  ...archivesOf(plan),
  ...imagesOf({ plan, found }),
]

/** Where a whole package lies that is pushed or copied. */
const archivesOf = (plan: Plan): readonly PlaceRow[] =>
  plan.steps.flatMap((step) =>
    step.kind === 'push' || step.kind === 'copy'
      ? [{ image: step.archive, archive: step.archive, offset: 0, size: step.bytes }]
      : [],
  )

const imagesOf = ({ plan, found }: Pick<Planned, 'plan' | 'found'>): readonly PlaceRow[] =>
  plan.packages.flatMap(({ key, decisions }) => {
    const proof = found.shelf.find((one) => one.key === key)?.proof
    return decisions.flatMap(({ image, write }) => {
      const place = proof?.places.get(image.sha256)
      return write && place !== undefined ? [{ image: image.sha256, ...place }] : []
    })
  })

/** The run as it stands after something was done to it. */
async function runNow(workshop: Workshop, id: string): Promise<Result<RunRow, Refusal>> {
  const run = await readRun(workshop.db, id)
  return run === undefined ? refuse({ code: 'run.unknown', facts: { id } }) : ok(run)
}

/** One entry of the book, and the news of it. */
async function note(
  workshop: Workshop,
  trx: Transaction,
  id: string,
  act: BookAct,
  by: string | null,
  slip: string | null | undefined,
  facts: Record<string, string | number>,
): Promise<void> {
  const entry = { by, act, facts: { run: id, ...facts } }
  await enter(workshop, trx, typeof slip === 'string' ? { ...entry, slip } : entry)
  await tell(trx, ['run', 'bench', 'work'], id, 1)
}

/** The run, and the person who says something of it. */
type By = { readonly id: string; readonly by: string }

/** A person did what was asked of hands at a command. */
export async function doneByHand(
  workshop: Workshop,
  { id, by }: By,
  command: number,
): Promise<Result<RunRow, Refusal>> {
  const run = await readRun(workshop.db, id)
  if (run === undefined) return refuse({ code: 'run.unknown', facts: { id } })
  const asked = run.commands[command]
  if (run.state !== 'running' || asked?.kind !== 'person')
    return refuse({ code: 'run.not-asked', facts: { id } })
  await workshop.db.transaction(async (trx) => {
    await answerRun(trx, id, command, by)
    await note(workshop, trx, id, 'run.done-by-hand', by, run.slip, { command, ask: asked.ask })
  })
  return runNow(workshop, id)
}

/** Orders a stop: it is shown as stopped when whoever drives it has met the order. */
export const stopRun = (workshop: Workshop, { id, by }: By): Promise<Result<RunRow, Refusal>> =>
  word(workshop, id, { code: 'run.over', facts: { id } }, async (trx, run) => {
    if (!(await askStop(trx, id, by))) return false
    await note(workshop, trx, id, 'run.stop-asked', by, run.slip, {})
    return true
  })

/** Takes up a run that stopped, or that nobody drives: an agent is to claim it from its journal. */
export async function takeUpRun(
  workshop: Workshop,
  { id, by }: By,
): Promise<Result<RunRow, Refusal>> {
  const run = await readRun(workshop.db, id)
  if (run?.state === 'ended' || run?.putAway === true)
    return refuse({ code: 'run.over', facts: { id } })
  const against = run && ((await againstGoingOn(workshop, run)) ?? (await tooShort(workshop, run)))
  if (against !== undefined) return refuse(against)
  if (!(await anyAgent(workshop.db))) return refuse({ code: 'port.no-agent' })
  return word(workshop, id, { code: 'run.driven', facts: { id } }, async (trx, { slip }) => {
    if (!(await wishRun(trx, id))) return false
    await note(workshop, trx, id, 'run.taken-up', by, slip, {})
    return true
  })
}

/** Goes on with a run at another port, where its device is seen now: of this bench, or of another. */
export async function moveRun(
  workshop: Workshop,
  { id, by }: By,
  port: string,
): Promise<Result<RunRow, Refusal>> {
  const run = await readRun(workshop.db, id)
  if (run === undefined) return refuse({ code: 'run.unknown', facts: { id } })
  const against = (await againstGoingOn(workshop, run)) ?? (await tooShort(workshop, run, port))
  if (against !== undefined) return refuse(against)
  const sight = (await listSights(workshop.db)).find((one) => one.port === port)
  if (sight?.facts?.serial !== run.serial) return refuse({ code: 'run.not-there', facts: { port } })
  if (!isLeft(run, phaseOf(run)) || run.port === port)
    return refuse({ code: 'run.driven', facts: { id } })
  return word(
    workshop,
    id,
    { code: 'port.busy', facts: { port } },
    async (trx, { slip, port: from }) => {
      if (!(await moveRunTo(trx, id, port))) return false
      await hangRuns(trx)
      await note(workshop, trx, id, 'run.moved', by, slip, { from, port })
      return true
    },
  )
}

/** Takes a run that is over off its port: never while of what is in doubt there is one copy. */
export async function putAwayRun(workshop: Workshop, { id }: By): Promise<Result<RunRow, Refusal>> {
  const run = await readRun(workshop.db, id)
  const family = workshop.families.find((one) => one.id === run?.plan.family)
  const journal = await readJournal(workshop.db, id)
  const part = run && holdOf(family, run, phaseOf(run), journal)
  if (part !== undefined) return refuse({ code: 'run.single-copy', facts: { part } })
  return word(workshop, id, { code: 'run.driven', facts: { id } }, async (trx) => {
    if (!(await freePort(trx, id))) return false
    await tell(trx, ['run', 'bench', 'work'], id, 1)
    return true
  })
}

/** Something said of a run, in one transaction: refused where it can no longer be said. */
async function word(
  workshop: Workshop,
  id: string,
  otherwise: Refusal,
  say: (trx: Transaction, run: RunRow) => Promise<boolean>,
): Promise<Result<RunRow, Refusal>> {
  const run = await readRun(workshop.db, id)
  if (run === undefined) return refuse({ code: 'run.unknown', facts: { id } })
  const taken = await workshop.db.transaction((trx) => say(trx, run))
  return taken ? runNow(workshop, id) : refuse(otherwise)
}
