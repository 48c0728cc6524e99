/**
 * Runs that live: neither ended nor put away. Locking contract: whoever acts on a slip and its run locks the slip's row,
 * then the run's, then the book; a device's runs are begun one at a time under a lock of its serial's.
 */
import type { Transaction } from './database.ts'
import type { Low, RunRow, WordAgainst } from './runs.ts'
import { rows, runsIn } from './runs.ts'

/** Runs of a slip or of a device that live, the newest first; their rows are locked to the end of the transaction. */
export async function aliveRuns(
  trx: Transaction,
  of: { readonly slip: string } | { readonly serial: string },
): Promise<readonly RunRow[]> {
  const [column, value] = 'slip' in of ? ['slip', of.slip] : ['serial', of.serial]
  const locked = (await trx('runs')
    .where({ [column]: value, put_away: false })
    .whereNot({ state: 'ended' })
    .forUpdate()
    .select('id')) as { id: string }[]
  if (locked.length === 0) return []
  const ids = locked.map(({ id }) => id)
  return runsIn(trx, rows(trx).whereIn('runs.id', ids).orderBy('runs.started_at', 'desc'))
}

/** Nobody else begins a run of this device until the transaction ends. */
export async function lockDevice(trx: Transaction, serial: string): Promise<void> {
  await trx.raw('select pg_advisory_xact_lock(hashtext(?))', [`runs of ${serial}`])
}

/** Keeps for what charge a run is stopped. */
export async function putLow(trx: Transaction, id: string, low: Low): Promise<void> {
  await trx('runs')
    .where({ id })
    .update({ low: JSON.stringify(low) })
}

/** Keeps what stands against a run. */
export async function putAgainst(
  trx: Transaction,
  id: string,
  against: WordAgainst | null,
): Promise<void> {
  await trx('runs')
    .where({ id })
    .update({
      against: against === null ? null : JSON.stringify(against),
      version: trx.raw('version + 1'),
    })
}
