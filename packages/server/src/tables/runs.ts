/**
 * Runs, their leases and the mirror of their journals. Locking contract: a lease changes hands in one
 * row update that raises the epoch with it; everything an owner writes names its epoch and touches no
 * row of a higher one. What people want is a compare-and-set of one row: it names the states in which
 * it can be said, and of two at once one is refused. A report never turns a later word back.
 */
import type { ShownRun } from '@plain-slate/api'
import type { StopOrders } from '@plain-slate/core'
import { isoOf, ms } from '@plain-slate/core'
import type { Knex } from 'knex'
import type { Database, Transaction } from './database.ts'
import type { Begun } from './run-begun.ts'
import { begunWith } from './run-begun.ts'
import { STEADY } from './steady.ts'

/** `wanted`: nobody drives it, and an agent is to. `running`: claimed; whoever claimed it may be gone. */
export type RunState = 'wanted' | 'running' | 'stopped' | 'ended'

/** A run as it is kept. `stop`: orders by number; `held` and `quiet` are the database's clock, not this process's. */
export type RunRow = Begun & {
  readonly id: string
  readonly slip: string | null
  readonly serial: string
  readonly port: string
  readonly cable: string | null
  readonly package: string
  readonly state: RunState
  /** An agent is to claim it. */
  readonly wanted: boolean
  readonly stop: StopOrders & { readonly heard: number }
  readonly putAway: boolean
  readonly answers: Readonly<Record<string, string>>
  readonly owner: string | null
  readonly epoch: number
  /** Seconds since something last moved, by the database's clock. */
  readonly quiet: number
  /** True while somebody holds the lease. */
  readonly held: boolean
  readonly shown: ShownRun | null
  /** What was said against the work since it began, and stands; null: nothing. */
  readonly against: WordAgainst | null
  /** The charge for which it was stopped, and what its rest could draw then, in percent; null: it was not. */
  readonly low: Low | null
  /** Who asked for its stop, by name; null: nobody did, or it was taken up since. */
  readonly stopBy: string | null
  readonly by: string | null
  readonly startedAt: string
  readonly endedAt: string | null
  readonly version: number
}

export type Low = { readonly charge: number; readonly needs: number }

/** A word against the work: what was said, and who said it (their id and name; null: at the shell). */
export type WordAgainst = {
  readonly topic: string
  readonly answer: string
  readonly by: string | null
  readonly name: string | null
  readonly at: string
}

/** A row without what its run was begun with. */
type Stored = Omit<RunRow, keyof Begun | 'putAway' | 'epoch' | 'startedAt' | 'endedAt' | 'stop'> & {
  readonly stop_asked: number
  readonly stop_heard: number
  readonly stop_met: number
  readonly put_away: boolean
  readonly epoch: string
  readonly started_at: Date
  readonly ended_at: Date | null
  readonly by_name: string | null
}

/** What moves of a run, with the starter's name and what only the database's clock can tell. */
const MOVES = [
  ...['id', 'slip', 'serial', 'port', 'cable', 'package', 'state', 'wanted', 'put_away', 'answers'],
  ...['stop_asked', 'stop_heard', 'stop_met', 'owner', 'epoch', 'shown', 'by', 'started_at'],
  ...['ended_at', 'version', 'against', 'low'],
].map((column) => `runs.${column}`)
export const rows = (db: Database) =>
  db('runs')
    .leftJoin('people', 'people.id', 'runs.by')
    .select(
      ...MOVES,
      'people.name as by_name',
      db.raw('(select name from people where people.id = runs.stop_by) as "stopBy"'),
      db.raw(`coalesce(runs.until > ${STEADY}, false) as held`),
      db.raw(
        `greatest(0, coalesce(extract(epoch from ${STEADY} - runs.moved_at), 0))::float as quiet`,
      ),
    )

/** The rows that a query of `rows` found, each with what its run was begun with. */
export async function runsIn(db: Database, query: Knex.QueryBuilder): Promise<RunRow[]> {
  const found = (await query) as Stored[]
  const begun = await begunWith(
    db,
    found.map(({ id }) => id),
  )
  return found.flatMap((row) => {
    const rest = begun.get(row.id)
    return rest === undefined ? [] : [{ ...rowOf(row), ...rest }]
  })
}

function rowOf(row: Stored): Omit<RunRow, keyof Begun> {
  const { put_away: putAway, started_at: startedAt, ended_at: endedAt, by_name: by, ...most } = row
  const { stop_asked: asked, stop_heard: heard, stop_met: met, ...rest } = most
  return {
    ...rest,
    stop: { asked, heard, met },
    by,
    putAway,
    epoch: Number(row.epoch),
    startedAt: isoOf(ms(startedAt.getTime())),
    endedAt: endedAt === null ? null : isoOf(ms(endedAt.getTime())),
  }
}

export type NewRun = Pick<
  RunRow,
  | 'id'
  | 'slip'
  | 'serial'
  | 'port'
  | 'cable'
  | 'package'
  | 'plan'
  | 'commands'
  | 'steps'
  | 'places'
  | 'wall'
> & {
  readonly by: string | null
  readonly startedAt: Date
  /** What people did already, by the command's place: it is not asked again. */
  readonly answers?: Readonly<Record<string, string>>
}

/** Enters a run that an agent is to claim. False when the port holds another that is not put away. */
export async function insertRun(db: Database, run: NewRun): Promise<boolean> {
  const json = (value: unknown) => JSON.stringify(value)
  const { plan, commands, steps, places, wall, startedAt, answers, ...plain } = run
  const made = await db('runs')
    .insert({
      ...plain,
      plan: json(plan),
      commands: json(commands),
      steps: json(steps),
      places: json(places),
      wall: json(wall),
      answers: json(answers ?? {}),
      state: 'wanted',
      started_at: startedAt,
    })
    .onConflict(db.raw('(port) where not put_away') as unknown as string)
    .ignore()
    .returning('id')
  return made.length === 1
}

export async function readRun(db: Database, id: string): Promise<RunRow | undefined> {
  const [run] = await runsIn(db, rows(db).where('runs.id', id))
  return run
}

/** Runs, the newest first; only those that hold a port when asked. */
export async function listRuns(db: Database, only: 'all' | 'at-ports'): Promise<RunRow[]> {
  const query = rows(db).orderBy('runs.started_at', 'desc').limit(200)
  return runsIn(db, only === 'all' ? query : query.where({ put_away: false }))
}

/** Runs that agents have to do with: wanted ones, and those under way. */
export async function listWork(db: Database): Promise<RunRow[]> {
  const states = ['wanted', 'running', 'stopped']
  return runsIn(db, rows(db).whereIn('runs.state', states).where({ put_away: false }))
}

/** Nobody says that he drives it: its lease has run out. */
const LAPSED = `coalesce(until < ${STEADY}, true)`
/** A stop that nobody met: whoever claims the run meets it before anything is written. */
const STOP_OPEN = 'stop_asked > stop_met'

/**
 * Takes a run that is wanted, or whose open stop nobody is there to meet, and whose lease nobody else
 * holds, at a higher epoch than any device has met. Undefined when somebody else was quicker or holds it.
 */
export async function claimRun(
  db: Database,
  id: string,
  agent: string,
  leaseMs: number,
): Promise<number | undefined> {
  const [row] = (await db('runs')
    .where({ id, put_away: false })
    .whereIn('state', ['wanted', 'running'])
    .andWhere((due) => due.where({ wanted: true }).orWhereRaw(`(${STOP_OPEN} and ${LAPSED})`))
    .andWhere((free) => free.where({ owner: agent }).orWhereRaw(LAPSED))
    .update({
      owner: agent,
      epoch: db.raw(`nextval('run_epochs')`),
      until: db.raw(`${STEADY} + ? * interval '1 millisecond'`, [leaseMs]),
      wanted: false,
      state: 'running',
      version: db.raw('version + 1'),
    })
    .returning('epoch')) as { epoch: string }[]
  return row === undefined ? undefined : Number(row.epoch)
}

/** Renews a lease that is still this agent's at this epoch. Who drives it needs not be wished for. */
export async function renewRun(
  db: Database,
  held: { readonly run: string; readonly epoch: number; readonly agent: string },
  leaseMs: number,
): Promise<boolean> {
  const count = await db('runs')
    .where({ id: held.run, owner: held.agent, epoch: held.epoch })
    .whereIn('state', ['running'])
    .update({
      wanted: false,
      until: db.raw(`${STEADY} + ? * interval '1 millisecond'`, [leaseMs]),
    })
  return count === 1
}

/** What an owner says of its run; it counts only under the owner's own epoch. */
export type Report = {
  readonly run: string
  readonly epoch: number
  readonly agent: string
  readonly shown: ShownRun
  readonly state: Exclude<RunState, 'wanted'>
  /** The number of the newest stop that its agent has heard. */
  readonly heard: number
  readonly endedAt: Date | null
  /** Something moved since the last report: a byte, an answer, a sign of the device. */
  readonly moved: boolean
}

/**
 * Shows where a run is, if it is under way and the epoch still its owner's; answers the new version. A
 * run that stopped while somebody already wished it taken up waits to be claimed.
 */
export async function reportRun(trx: Transaction, report: Report): Promise<number | undefined> {
  const over = report.state !== 'running'
  const wishedFor = `case when wanted then 'wanted' else 'stopped' end`
  const [row] = (await trx('runs')
    .where({ id: report.run, owner: report.agent, epoch: report.epoch, state: 'running' })
    .update({
      shown: JSON.stringify(report.shown),
      state: report.state === 'stopped' ? trx.raw(wishedFor) : report.state,
      wanted: report.state === 'stopped' ? trx.raw('wanted') : false,
      stop_heard: trx.raw('greatest(stop_heard, ?::int)', [report.heard]),
      ended_at: report.endedAt,
      ...(report.moved ? { moved_at: trx.raw(STEADY) } : {}),
      version: trx.raw('version + 1'),
      ...(over ? { owner: null, until: null, stop_met: trx.ref('stop_asked') } : {}),
    })
    .returning('version')) as { version: number }[]
  return row?.version
}

/** Whoever shows a run is told by its version that it changed. */
const next = (db: Database) => ({ version: db.raw('version + 1') })

/**
 * A stop. One that nobody drives is stopped with that; one that somebody may be driving is asked to, under
 * the order's number, and a wish to take it up is withdrawn. False: it is over already.
 */
export async function askStop(trx: Transaction, id: string, by: string | null): Promise<boolean> {
  const withdrawn = await trx('runs')
    .where({ id, state: 'wanted' })
    .update({ state: 'stopped', wanted: false, stop_by: by, ...next(trx) })
  if (withdrawn === 1) return true
  const asked = await trx('runs')
    .where({ id, state: 'running' })
    .update({
      wanted: false,
      stop_by: by,
      stop_asked: trx.raw('stop_asked + 1'),
      ...next(trx),
    })
  return asked === 1
}

/**
 * Wishes a run taken up that stopped, or whose lease has lapsed: open stops are taken back by it. False
 * when somebody else was quicker, or it is driven, over or put away.
 */
export async function wishRun(trx: Transaction, id: string): Promise<boolean> {
  const change = {
    wanted: true,
    stop_met: trx.ref('stop_asked'),
    stop_by: null,
    low: null,
    ...next(trx),
  }
  const stopped = await trx('runs')
    .where({ id, state: 'stopped', put_away: false })
    .update({ ...change, state: 'wanted' })
  if (stopped === 1) return true
  const lapsed = await trx('runs')
    .where({ id, state: 'running', wanted: false, put_away: false })
    .whereRaw(LAPSED)
    .update(change)
  return lapsed === 1
}

/**
 * Puts a run at another port, to be claimed there at a higher epoch: whoever drove it writes no more. False where it is
 * over, or a run holds that port.
 */
export async function moveRunTo(trx: Transaction, id: string, port: string): Promise<boolean> {
  const held = await trx('runs').where({ port, put_away: false }).whereNot({ id }).first('id')
  if (held !== undefined) return false
  const change = {
    ...{ port, wanted: true, until: trx.raw(STEADY), stop_met: trx.ref('stop_asked') },
    ...{ stop_by: null, low: null },
  }
  const moved = await trx('runs')
    .where({ id, put_away: false })
    .whereIn('state', ['running', 'stopped', 'wanted'])
    .update({
      ...change,
      state: trx.raw(`case when state = 'running' then state else 'wanted' end`),
      ...next(trx),
    })
  return moved === 1
}

/** Above every epoch that a shop has reached by the time a copy of it is put to work. */
const EPOCHS_AHEAD = 1_000_000

/**
 * Nobody drives a run that was under way when this shop was copied: it is in doubt until a person takes it up, above every
 * epoch of the shop it was copied from, so that a device never serves both.
 */
export async function putRunsInDoubt(db: Database): Promise<void> {
  await db('runs')
    .whereIn('state', ['wanted', 'running'])
    .update({
      wanted: false,
      owner: null,
      until: null,
      state: db.raw(`case when state = 'wanted' then 'stopped' else state end`),
      ...next(db),
    })
  await db.raw(`select setval('run_epochs', nextval('run_epochs') + ?)`, [EPOCHS_AHEAD])
}

/** Takes a run that is over off its port. False while it is not over, or when it is off already. */
export async function freePort(trx: Transaction, id: string): Promise<boolean> {
  const count = await trx('runs')
    .where({ id, put_away: false })
    .whereIn('state', ['stopped', 'ended'])
    .update({ put_away: true, ...next(trx) })
  return count === 1
}

/** Keeps what a person did at a command. */
export async function answerRun(
  db: Database,
  id: string,
  command: number,
  evidence: string,
): Promise<number | undefined> {
  const [row] = (await db('runs')
    .where({ id })
    .update({
      answers: db.raw('answers || ?::jsonb', [JSON.stringify({ [command]: evidence })]),
      version: db.raw('version + 1'),
    })
    .returning('version')) as { version: number }[]
  return row?.version
}
