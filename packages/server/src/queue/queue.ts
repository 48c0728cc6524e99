/**
 * Work that runs by itself, in PostgreSQL's queue (pg-boss), so that several servers share it: the
 * nightly check of the book and the purge of sessions that are over. A job is a name, a time and a
 * function; add one to the list.
 */
import PgBoss from 'pg-boss'
import { checkBook } from '../book/check.ts'
import type { Workshop } from '../base/workshop.ts'
import { tellRefusals } from '../people/refusals.ts'
import { purgeShelf } from '../shelf/acts.ts'
import { READ_ARCHIVE, readArchive } from '../shelf/read-archive.ts'
import { purgeSessions } from '../tables/sessions.ts'
import { purgeTokens } from '../tables/shell-tokens.ts'
import { listUnread } from '../tables/shelf.ts'

/** A job that runs at times by itself. */
export type Job = {
  readonly name: string
  /** Five cron fields, in UTC. */
  readonly when: string
  readonly run: (workshop: Workshop) => Promise<object>
}

export const JOBS: readonly Job[] = [
  { name: 'book-check', when: '10 2 * * *', run: (workshop) => checkBook(workshop) },
  {
    name: 'session-purge',
    when: '25 * * * *',
    run: async (workshop) => ({
      purged: (await purgeSessions(workshop.db)) + (await purgeTokens(workshop.db)),
    }),
  },
  { name: 'refusals-tell', when: '5 * * * *', run: tellRefusals },
  { name: 'shelf-purge', when: '40 3 * * *', run: purgeShelf },
]

type Work = (workshop: Workshop, data: Readonly<Record<string, string>>) => Promise<object>

/** Work that somebody hands in. */
const WORK: Readonly<Record<string, Work>> = {
  [READ_ARCHIVE]: (workshop, { id = '' }) => readArchive(workshop, id),
}

/** Does handed-in work at once: where no queue runs. */
export const workNow =
  (workshop: Workshop): Workshop['enqueue'] =>
  async (name, data) => {
    await WORK[name]?.(workshop, data)
  }

/** Work that somebody waits for is begun where it was handed in; what another server handed in and left is looked for. */
const HANDED_IN = { pollingIntervalSeconds: 2 }
/** A time of the clock is kept to the minute. */
const AT_TIMES = { pollingIntervalSeconds: 30 }
const POOL_MAX = 2
const STOP_TIMEOUT_MS = 5000

export type Queue = {
  readonly enqueue: Workshop['enqueue']
  /** Stops the workers; a running job may end. */
  readonly stop: () => Promise<void>
}

/** What came of a job, or how it failed; the queue then tries it again. */
export async function logged(
  workshop: Workshop,
  job: string,
  run: () => Promise<object>,
): Promise<object> {
  try {
    const result = await run()
    workshop.log.info({ job, result }, 'job done')
    return result
  } catch (err) {
    workshop.log.error({ job, err }, 'job failed')
    throw err
  }
}

/** Starts the queue's workers. What a server that died left unread is handed in again. */
export async function startJobs(workshop: Workshop, jobs = JOBS): Promise<Queue> {
  const boss = new PgBoss({
    connectionString: workshop.config.databaseUrl,
    application_name: 'plain-slate jobs',
    max: POOL_MAX,
  })
  boss.on('error', (err) => workshop.log.warn({ err }, 'jobs'))
  await boss.start()
  for (const job of jobs) {
    await boss.createQueue(job.name)
    await boss.work(job.name, AT_TIMES, () => logged(workshop, job.name, () => job.run(workshop)))
    await boss.schedule(job.name, job.when)
  }
  const workers = new Map<string, string>()
  for (const [name, work] of Object.entries(WORK)) {
    await boss.createQueue(name)
    const worker = await boss.work<Record<string, string>>(name, HANDED_IN, ([job]) =>
      logged(workshop, name, () =>
        job === undefined ? Promise.resolve({}) : work(workshop, job.data),
      ),
    )
    workers.set(name, worker)
  }
  const enqueue: Workshop['enqueue'] = async (name, data) => {
    await boss.send(name, data)
    const worker = workers.get(name)
    if (worker !== undefined) boss.notifyWorker(worker)
  }
  for (const id of await listUnread(workshop.db)) await enqueue(READ_ARCHIVE, { id })
  return {
    enqueue,
    stop: () => boss.stop({ graceful: true, timeout: STOP_TIMEOUT_MS, wait: true }),
  }
}
