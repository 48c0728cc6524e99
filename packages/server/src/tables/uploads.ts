/**
 * Room that uploads under way have been promised. A row lives as long as bytes come; one that was not
 * seen for a while belongs to a server that died. Locking contract: promising takes one advisory lock, so
 * that two uploads are never promised the same room.
 */
import type { Database } from './database.ts'
import { STEADY } from './steady.ts'

/** One upload is not waited for longer than this after its last sign. */
const SEEN_MS = 60_000

export type Promised = { readonly id: string; readonly bytes: number }

/** Promises room where what is free covers everything promised already; false where it does not. */
export async function promiseRoom(
  db: Database,
  { id, bytes }: Promised,
  free: number,
): Promise<boolean> {
  return db.transaction(async (trx) => {
    await trx.raw(`select pg_advisory_xact_lock(hashtextextended('plain-slate room', 0))`)
    await trx('uploads')
      .whereRaw(`seen_at < ${STEADY} - ? * interval '1 millisecond'`, [SEEN_MS])
      .delete()
    const [row] = (await trx('uploads').sum({ n: trx.raw('bytes - got') })) as {
      n: string | null
    }[]
    if (bytes + Number(row?.n ?? 0) > free) return false
    await trx('uploads').insert({ id, bytes, seen_at: trx.raw(STEADY) })
    return true
  })
}

/** How many bytes came so far: they are on the disk, and no more promised. */
export async function noteUpload(db: Database, id: string, got: number): Promise<void> {
  await db('uploads')
    .where({ id })
    .update({ got, seen_at: db.raw(STEADY) })
}

export async function endUpload(db: Database, id: string): Promise<void> {
  await db('uploads').where({ id }).delete()
}
