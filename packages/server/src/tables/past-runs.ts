/** Runs that are over: a slip's last one, those that figures are made of, and the demo's history. */
import type { ShownRun } from '@plain-slate/api'
import type { Changed, JournalEntry, Json } from '@plain-slate/core'
import { ms } from '@plain-slate/core'
import type { Database, Transaction } from './database.ts'
import type { NewRun, RunRow, RunState } from './runs.ts'
import { mirrorEntries } from './journals.ts'
import { insertRun, rows, runsIn } from './runs.ts'

/** Figures rest on this many of the newest runs at most. */
const ENDED_MOST = 100

/** The newest run of a slip. */
export async function lastRunOf(db: Database, slip: string): Promise<RunRow | undefined> {
  const newest = rows(db).where('runs.slip', slip).orderBy('runs.started_at', 'desc').limit(1)
  const [run] = await runsIn(db, newest)
  return run
}

/** Every run of a slip, the oldest first: what was done to its device, whatever became of it. */
export async function listRunsOf(db: Database, slip: string): Promise<RunRow[]> {
  return runsIn(db, rows(db).where('runs.slip', slip).orderBy('runs.started_at'))
}

/** The command that an entry is of. */
const COMMAND = `(runs.commands -> ((entry ->> 'command')::int))`

/** When the last runs began that sent a piece to a device, and that meant to start its system after. */
export async function lastChanges(db: Database, serial: string): Promise<Changed> {
  const meant = (is: string) =>
    `(select max(started_at) from runs where serial = :serial and exists (
       select 1 from run_entries where run = runs.id and entry ->> 'kind' = 'intend'
         and ${is.replace('command', COMMAND)}))`
  const { rows: found } = (await db.raw(
    `select ${meant(`command @> '{"kind": "put"}'`)} as written,
            ${meant(`jsonb_exists(command, 'first')`)} as started`,
    { serial },
  )) as { rows: { written: Date | null; started: Date | null }[] }
  const { written = null, started = null } = found[0] ?? {}
  return {
    writtenAt: written === null ? undefined : ms(written.getTime()),
    startedAt: started === null ? undefined : ms(started.getTime()),
  }
}

/** Ids of permits that a device was given in a run that went to its end: each is good for one time. */
export async function permitsUsed(db: Database): Promise<readonly string[]> {
  const { rows: found } = (await db.raw(
    `select distinct ${COMMAND} -> 'permit' ->> 'id' as id
       from runs join run_entries on run_entries.run = runs.id
      where runs.state = 'ended' and runs.commands @> '[{"kind": "permit"}]'
        and entry ->> 'kind' = 'done' and ${COMMAND} @> '{"kind": "permit"}'`,
  )) as { rows: { id: string }[] }
  return found.map(({ id }) => id)
}

/** Takes the runs of a slip that ended off their ports; answers how many. */
export async function putAwayRunsOf(trx: Transaction, slip: string): Promise<number> {
  return trx('runs').where({ slip, state: 'ended', put_away: false }).update({ put_away: true })
}

/** A run that is over, as the demo's history has it: entered whole, with its journal. */
export async function insertPast(
  trx: Transaction,
  run: NewRun & {
    readonly made: Json
    readonly shown: ShownRun
    readonly state: RunState
    readonly endedAt: Date | null
    readonly putAway: boolean
    readonly journal: readonly JournalEntry[]
  },
): Promise<void> {
  const { made, shown, state, endedAt, putAway, journal, ...rest } = run
  await insertRun(trx, rest)
  await trx('runs')
    .where({ id: run.id })
    .update({
      made: JSON.stringify(made),
      shown: JSON.stringify(shown),
      state,
      ended_at: endedAt,
      put_away: putAway,
      wanted: false,
    })
  await mirrorEntries(trx, run.id, 0, journal)
}

/** A run that ended, as far as its pace goes. */
export type EndedRun = Pick<RunRow, 'id' | 'cable' | 'plan' | 'commands'> & {
  readonly journal: readonly JournalEntry[]
}

/** Which run ended last, and of which database: what figures rest on is known by it. */
export async function lastEnded(db: Database): Promise<string> {
  const { rows: found } = (await db.raw(
    `select current_database() as shop, count(*) as n, max(ended_at)::text as at
     from runs where state = 'ended'`,
  )) as { rows: { shop: string; n: string; at: string | null }[] }
  return found.map(({ shop, n, at }) => `${shop} ${n} ${at ?? ''}`).join()
}

/** The newest runs that ended on a family, with their journals: what own figures are made of. */
export async function listEnded(db: Database, family: string): Promise<EndedRun[]> {
  const found = (await db('runs')
    .where({ state: 'ended' })
    .whereRaw(`plan ->> 'family' = ?`, [family])
    .orderBy('started_at', 'desc')
    .limit(ENDED_MOST)
    .select('id', 'cable', 'plan', 'commands')) as Omit<EndedRun, 'journal'>[]
  const entries = (await db('run_entries')
    .whereIn(
      'run',
      found.map(({ id }) => id),
    )
    .orderBy(['run', 'n'])
    .select('run', 'entry')) as { run: string; entry: JournalEntry }[]
  return found.map((run) => ({
    ...run,
    journal: entries.filter((one) => one.run === run.id).map(({ entry }) => entry),
  }))
}
