/**
 * The way to PostgreSQL: one pool a process, migrations to the newest, readiness. SQL stands in this
 * folder only.
 */
import knex from 'knex'
import type { Knex } from 'knex'
import PgBoss from 'pg-boss'
import { migrationSource } from '../migrations/index.ts'

export type Database = Knex
export type Transaction = Knex.Transaction

/** How long a request waits for a connection before it is told that the database is away. */
const ACQUIRE_TIMEOUT_MS = 4000
/** And how long in line, while all connections are in use: then the database is there, and busy. */
const BUSY_MS = 30_000
const POOL_MAX = 8

/** Opens a pool on a `postgres:` address; connects only when first asked. `patienceMs`: for a connection. */
export function openDatabase(url: string, patienceMs = ACQUIRE_TIMEOUT_MS): Database {
  const db = knex({
    client: 'pg',
    connection: { connectionString: url, application_name: 'plain-slate' },
    pool: { min: 0, max: POOL_MAX },
    acquireConnectionTimeout: patienceMs,
    migrations: { migrationSource, tableName: 'migrations' },
  })
  waitInLine(db)
  return db
}

type Pooled = {
  acquireConnection: () => Promise<unknown>
  readonly pool: { readonly numUsed: () => number } | undefined
}

/** Whoever finds every connection in use waits behind the others: two hundred at once are served one after the other. */
function waitInLine(db: Database): void {
  const client = db.client as Pooled
  const acquire = client.acquireConnection.bind(client)
  client.acquireConnection = async () => {
    const late = performance.now() + BUSY_MS
    for (;;)
      try {
        return await acquire()
      } catch (error) {
        const busy = isLate(error) && (client.pool?.numUsed() ?? 0) >= POOL_MAX
        if (!busy || performance.now() > late) throw error
      }
  }
}

/** No connection came in time. */
const isLate = (error: unknown): boolean =>
  error instanceof Error && error.name === 'KnexTimeoutError'

/** Who migrates holds this advisory lock; the number is any of our own. */
const MIGRATING = 7_301_551

/**
 * Brings the tables to the newest form; several processes may ask at once, one does it. Knex notes in a row that it
 * migrates, and whoever is killed then leaves the row so; under the advisory lock, which a death frees, that row is nobody's.
 */
export async function migrate(db: Database): Promise<void> {
  await db.transaction(async (trx) => {
    await trx.raw('select pg_advisory_xact_lock(?)', [MIGRATING])
    await db.migrate.forceFreeMigrationsLock()
    await db.migrate.latest()
    await installQueue(db)
  })
}

/**
 * The job queue's own tables. Its plan begins with "create schema", which a role without rights on
 * the whole database may not say even where the schema stands; so that line goes where it does.
 */
async function installQueue(db: Database): Promise<void> {
  const found = (await db('pg_namespace').where({ nspname: 'pgboss' }).count('* as n')) as {
    n: string
  }[]
  const installed = await db.raw("select to_regclass('pgboss.version') as name")
  if ((installed as { rows: { name: string | null }[] }).rows[0]?.name !== null) return
  const plan = PgBoss.getConstructionPlans('pgboss')
  const stands = Number(found[0]?.n) > 0
  await db.raw((stands ? plan.replace(/create schema[^;]*;?/i, '') : plan).replaceAll('?', '\\?'))
}

/**
 * Whether the database takes connections, and whether its tables are as this version wants them. A database
 * that is shutting down still answers on connections it has: so a new one is asked for.
 */
export async function readiness(
  db: Database,
): Promise<{ readonly database: boolean; readonly tables: boolean }> {
  try {
    await takesConnections(db)
    const [, pending] = (await db.migrate.list()) as [unknown[], unknown[]]
    return { database: true, tables: pending.length === 0 }
  } catch {
    return { database: false, tables: false }
  }
}

type Raw = { readonly acquireRawConnection: () => Promise<unknown> } & {
  readonly destroyRawConnection: (connection: unknown) => Promise<void>
}

/** Opens a connection beside the pool and closes it. Throws where none is to be had. */
async function takesConnections(db: Database): Promise<void> {
  const client = db.client as Raw
  await client.destroyRawConnection(await client.acquireRawConnection())
}

/**
 * SQLSTATE classes and socket errors that mean "away for now", not "wrong": of two that stood in each other's way one is
 * told to come again.
 */
const AWAY = /^(08|57P0[1-3]|40P01|40001|53300|ECONNREFUSED|ECONNRESET|EPIPE|ENOENT)/

/** What the driver says, without a code, of a connection that was lost under it. */
const GONE = ['Connection terminated', 'not queryable', 'Connection ended unexpectedly']

/** True when an error says that the database cannot be reached at the moment. */
export function isAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false
  if (isLate(error)) return true
  if (GONE.some((words) => error.message.includes(words))) return true
  return 'code' in error && typeof error.code === 'string' && AWAY.test(error.code)
}
