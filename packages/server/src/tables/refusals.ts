/** Counts of refused calls, by person, call and hour of the database's clock. */
import type { Database, Transaction } from './database.ts'

export type Refused = { readonly person: string; readonly what: string }

/** Counts one; answers the how manieth of its hour it is. */
export async function countRefused(trx: Transaction, { person, what }: Refused): Promise<number> {
  const [row] = (await trx('refusals')
    .insert({ person, what, hour: trx.raw(`date_trunc('hour', now())`), n: 1, told: 1 })
    .onConflict(['person', 'what', 'hour'])
    .merge({ n: trx.raw('refusals.n + 1') })
    .returning('n')) as { n: number }[]
  return row?.n ?? 1
}

export type Untold = Refused & { readonly times: number }

/** Counts of hours that are over and were not told whole: they are marked as told. */
export async function takeUntold(trx: Transaction): Promise<readonly Untold[]> {
  const { rows } = (await trx.raw(`
    update refusals set told = n from (
      select person, what, hour, n - told as times from refusals
      where n > told and hour < date_trunc('hour', now()) for update
    ) as open
    where refusals.person = open.person and refusals.what = open.what and refusals.hour = open.hour
    returning open.person, open.what, open.times
  `)) as { rows: Untold[] }
  return rows
}

/** Forgets counts that were told long ago. */
export async function dropTold(db: Database): Promise<void> {
  await db('refusals').whereRaw(`n = told and hour < now() - interval '7 days'`).delete()
}
