/**
 * The house rules. Rows are only put: the newest stands. Who puts one holds the table's lock, so that two people
 * who decide at one time take turns, and the second is told.
 */
import type { HouseRules } from '@plain-slate/core'
import { USUAL_HOUSE, houseSchema, isoOf, ms } from '@plain-slate/core'
import type { Database, Transaction } from './database.ts'

export type HouseRow = {
  readonly version: number
  readonly rules: HouseRules
  readonly by: string | null
  readonly at: string
  readonly reason: string
}
type Stored = {
  readonly version: number
  readonly rules: unknown
  readonly by: string | null
  readonly at: Date
  readonly reason: string
}

/** What stands; version 0 and the usual, where nobody decided anything. */
export async function readHouse(
  db: Database,
): Promise<{ readonly version: number; readonly rules: HouseRules }> {
  const row = (await db('house_rules').orderBy('version', 'desc').first()) as Stored | undefined
  return row === undefined
    ? { version: 0, rules: USUAL_HOUSE }
    : { version: row.version, rules: rulesIn(row.rules) }
}

/** A setting that came later than the row is the usual. */
const rulesIn = (stored: unknown): HouseRules =>
  houseSchema.parse({ ...USUAL_HOUSE, ...(stored as Partial<HouseRules>) })

/** Every decision, the newest first, at most so many. */
export async function listHouse(db: Database, most: number): Promise<readonly HouseRow[]> {
  const rows = (await db('house_rules')
    .leftJoin('people', 'people.id', 'house_rules.by')
    .orderBy('version', 'desc')
    .limit(most)
    .select('version', 'rules', 'people.name as by', 'at', 'reason')) as Stored[]
  return rows.map((row) => ({
    ...row,
    rules: rulesIn(row.rules),
    at: isoOf(ms(row.at.getTime())),
  }))
}

/** Puts a decision down where this version still stands; false where another does. */
export async function insertHouse(
  trx: Transaction,
  seen: number,
  row: {
    readonly rules: HouseRules
    readonly by: string | null
    readonly at: Date
    readonly reason: string
  },
): Promise<boolean> {
  await trx.raw('lock table house_rules in exclusive mode')
  const { version } = await readHouse(trx)
  if (version !== seen) return false
  await trx('house_rules').insert({ ...row, rules: JSON.stringify(row.rules) })
  return true
}
