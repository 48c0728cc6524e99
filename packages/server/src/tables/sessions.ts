/** Sessions as connect-pg-simple keeps them; here only what that library does not do. */
import type { Database } from './database.ts'

/** Removes sessions whose time is over; answers how many. */
export async function purgeSessions(db: Database): Promise<number> {
  return db('sessions').where('expire', '<', db.fn.now()).delete()
}

/** True while the session exists and its time is not over. */
export async function sessionLives(db: Database, sid: string): Promise<boolean> {
  const row = (await db('sessions')
    .where({ sid })
    .where('expire', '>', db.fn.now())
    .first('sid')) as { sid: string } | undefined
  return row !== undefined
}

/** Ends every session of a person: they left, or their PIN was changed. */
export async function dropSessionsOf(db: Database, personId: string): Promise<void> {
  await db('sessions').whereRaw("sess::jsonb ->> 'personId' = ?", [personId]).delete()
}
