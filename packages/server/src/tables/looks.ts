/**
 * Looks at devices, as jobs: asked, done by an agent, ended. Locking contract: whoever ends one holds its row
 * lock to the end of the transaction in which what was found is kept, so that it is kept once.
 */
import type { ErrorCode } from '@plain-slate/api'
import { isoOf, ms } from '@plain-slate/core'
import type { Database, Transaction } from './database.ts'
import { STEADY } from './steady.ts'

/** What came of a look: how much was read, or why nothing was, as a refusal's code and facts. */
export type LookOutcome =
  | {
      readonly kind: 'found'
      readonly serial: string
      readonly digests: number
      readonly table: boolean
    }
  | {
      readonly kind: 'failed'
      readonly code: ErrorCode
      readonly facts: Readonly<Record<string, string | number>>
    }

export type LookRow = {
  readonly id: string
  readonly port: string
  readonly slip: string | null
  readonly by: string | null
  readonly digests: readonly { readonly partition: string; readonly size: number }[]
  /** Into this mode and back, under this epoch; both null: as the device is. */
  readonly into: string | null
  readonly epoch: number | null
  readonly state: 'looking' | 'ended'
  readonly outcome: LookOutcome | null
  readonly at: string
  /** Whether it was asked for longer ago than any look takes; not told of one that was just asked for. */
  readonly old?: boolean
}
type Stored = Omit<LookRow, 'epoch' | 'at'> & { readonly epoch: string | null; readonly at: Date }

const rowOf = (row: Stored): LookRow => ({
  ...row,
  epoch: row.epoch === null ? null : Number(row.epoch),
  at: isoOf(ms(row.at.getTime())),
})

/** An agent that has not ended a look by then never will: some GiB are digested in a minute or two. */
export const LOOK_LIVES_MS = 10 * 60_000
/** The same as a condition, by the clock that does not jump. */
export const LOOK_IS_OLD = `at < ${STEADY} - interval '${LOOK_LIVES_MS} milliseconds'`
const COLUMNS = [
  'id',
  'port',
  'slip',
  'by',
  'digests',
  'into',
  'epoch',
  'state',
  'outcome',
  'at',
] as const

const oldOf = (db: Database) => db.raw(`${LOOK_IS_OLD} as old`)

/** Asks for a look; false while another is under way at the port. */
export async function insertLook(
  db: Database,
  { digests, ...look }: Pick<LookRow, 'id' | 'port' | 'slip' | 'by' | 'digests' | 'into' | 'epoch'>,
): Promise<boolean> {
  const made = await db('looks')
    .insert({ ...look, digests: JSON.stringify(digests), at: db.raw(STEADY) })
    .onConflict(db.raw(`(port) where state = 'looking'`) as unknown as string)
    .ignore()
    .returning('id')
  return made.length === 1
}

/** Looks that agents have to do with. */
export async function listLooks(db: Database): Promise<LookRow[]> {
  const rows = (await db('looks').where({ state: 'looking' }).select(COLUMNS)) as Stored[]
  return rows.map(rowOf)
}

/** The look that was asked last: at a port, or for a slip. */
export async function lastLook(
  db: Database,
  of: { readonly port: string } | { readonly slip: string },
): Promise<LookRow | undefined> {
  const row = (await db('looks')
    .where(of)
    .orderByRaw(NEWEST)
    .first([...COLUMNS, oldOf(db)])) as Stored | undefined
  return row === undefined ? undefined : rowOf(row)
}

/** One under way goes before any that has ended. */
const NEWEST = `state = 'looking' desc, at desc`

/** The newest look of each port. */
export async function newestLooks(db: Database): Promise<LookRow[]> {
  const rows = (await db('looks')
    .distinctOn('port')
    .orderByRaw(`port, ${NEWEST}`)
    .select([...COLUMNS, oldOf(db)])) as Stored[]
  return rows.map(rowOf)
}

/** Locks a look that is under way; undefined when there is none of that id, or it has ended. */
export async function lockLook(trx: Transaction, id: string): Promise<LookRow | undefined> {
  const row = (await trx('looks').where({ id, state: 'looking' }).forUpdate().first(COLUMNS)) as
    Stored | undefined
  return row === undefined ? undefined : rowOf(row)
}

export async function endLook(trx: Transaction, id: string, outcome: LookOutcome): Promise<void> {
  await trx('looks')
    .where({ id })
    .update({ state: 'ended', outcome: JSON.stringify(outcome), ended_at: trx.fn.now() })
}

/** The end of a look whose agent never came back. */
export const GIVEN_UP: LookOutcome = { kind: 'failed', code: 'look.given-up', facts: {} }

/** Ends looks that nobody will end any more; answers which. */
export async function giveUpLooks(db: Database): Promise<LookRow[]> {
  const outcome = GIVEN_UP
  const rows = (await db('looks')
    .where({ state: 'looking' })
    .whereRaw(`at < ${STEADY} - ? * interval '1 millisecond'`, [LOOK_LIVES_MS])
    .update({ state: 'ended', outcome: JSON.stringify(outcome), ended_at: db.fn.now() })
    .returning(COLUMNS)) as Stored[]
  return rows.map(rowOf)
}
