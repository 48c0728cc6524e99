/**
 * Work that runs by itself, in PostgreSQL's queue (pg-boss), so that several servers share it: the
 * nightly check of the book and the purge of sessions that are over. A job is a name, a time and a
 * function; add one to the list.
 */
import PgBoss from 'pg-boss'
import { checkBook } from '../book/check.ts'
import type { House } from '../house.ts'
import { purgeSessions } from '../tables/sessions.ts'

export type Job = {
  readonly name: string
  /** Five cron fields, in UTC. */
  readonly when: string
  readonly run: (house: House) => Promise<object>
}

export const JOBS: readonly Job[] = [
  { name: 'book-check', when: '10 2 * * *', run: (house) => checkBook(house) },
  {
    name: 'session-purge',
    when: '25 * * * *',
    run: async (house) => ({ purged: await purgeSessions(house.db) }),
  },
]

const POOL_MAX = 2
const STOP_TIMEOUT_MS = 5000

/** Starts the queue's workers; answers the way to stop them, which lets a running job end. */
export async function startJobs(house: House, jobs = JOBS): Promise<() => Promise<void>> {
  const boss = new PgBoss({
    connectionString: house.config.databaseUrl,
    application_name: 'plain-slate jobs',
    max: POOL_MAX,
  })
  boss.on('error', (err) => house.log.warn({ err }, 'jobs'))
  await boss.start()
  for (const job of jobs) {
    await boss.createQueue(job.name)
    await boss.work(job.name, async () => {
      const result = await job.run(house)
      house.log.info({ job: job.name, result }, 'job done')
      return result
    })
    await boss.schedule(job.name, job.when)
  }
  return () => boss.stop({ graceful: true, timeout: STOP_TIMEOUT_MS, wait: true })
}
