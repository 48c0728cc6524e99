/** A running server: listening, hearing news, with a stop that drains. */
import type { Server } from 'node:http'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { Logger } from 'pino'
import { pino } from 'pino'
import { makeApp } from './app.ts'
import type { Config } from './base/config.ts'
import { BODY_TIME } from './edge/body-time.ts'
import type { BodyTime } from './edge/body-time.ts'
import { makeHub } from './events/hub.ts'
import type { Word } from './events/hub.ts'
import { openFolder } from '@plain-slate/vault'
import type { KnownFamilies } from './base/families.ts'
import { knownFamilies, readFamilies } from './base/families.ts'
import { proveUnproven } from './shelf/proofs.ts'
import { roomIn } from './shelf/take-in.ts'
import { shopClock } from './base/workshop.ts'
import type { Workshop } from './base/workshop.ts'
import type { Queue } from './queue/queue.ts'
import { startJobs, workNow } from './queue/queue.ts'
import type { Database } from './tables/database.ts'
import { openDatabase } from './tables/database.ts'
import { listen } from './tables/news.ts'

/** A head of a request that is not here by then is not waited for. */
const HEADERS_MS = 60_000

/** How long open requests may take to end once the server drains. */
const DRAIN_MS = 5000

export type Running = {
  readonly workshop: Workshop
  readonly port: number
  /** Stops taking requests, lets open ones end, ends streams and jobs, closes the database. */
  readonly stop: () => Promise<void>
}

/** Starts a server on the config's address; port 0 takes a free one. Tables must be migrated. */
export async function serve(
  config: Config,
  webDist: string,
  options: {
    readonly version: string
    readonly jobs: boolean
    readonly realNow?: () => number
    readonly bodyTime?: BodyTime
  },
): Promise<Running> {
  /* A log that cannot be written (a full disk) costs its lines, and never the server. */
  const out = pino.destination(2).on('error', () => undefined)
  const log = pino({ level: config.logLevel, base: null }, out)
  const db = openDatabase(config.databaseUrl)
  const clock = shopClock(db, options.realNow)
  const known = knownFamilies(readFamilies(config.familiesFolder))
  const queue: { jobs: Queue | undefined } = { jobs: undefined }
  const workshop: Workshop = {
    db,
    config,
    hub: makeHub(),
    log,
    clock,
    version: options.version,
    vault: await openFolder(config.vaultFolder),
    room: () => roomIn(config.vaultFolder),
    families: known.list,
    familiesMark: known.mark,
    reloadFamilies: () => reloaded(known, db, log),
    bodyTime: options.bodyTime ?? BODY_TIME,
    enqueue: (work, data) => (queue.jobs?.enqueue ?? workNow(workshop))(work, data),
  }
  const app = makeApp(workshop, webDist)
  const server = createServer(app.express)
  /* A large archive over a slow line takes hours; what stands still is cut by `bodyTime`. */
  server.requestTimeout = 0
  server.headersTimeout = HEADERS_MS
  const ending = new AbortController()
  listen(
    config.databaseUrl,
    {
      news: (news) => void heard(workshop, { kind: 'news', news }),
      gap: () => void heard(workshop, { kind: 'reset' }),
    },
    ending.signal,
  )
  await workshop.reloadFamilies()
  await proveUnproven(db)
  if (options.jobs) queue.jobs = await startJobs(workshop)
  const port = await listening(server, config)
  const stop = async () => {
    ending.abort()
    workshop.hub.tell({ kind: 'bye' })
    await drained(server)
    await queue.jobs?.stop()
    await app.close()
    await db.destroy()
  }
  return { workshop, port, stop }
}

/** A profile that this program's schema reads no more is said: what stood before it stands again. */
async function reloaded(known: KnownFamilies, db: Database, log: Logger): Promise<void> {
  const lost = await known.reload(db)
  if (lost.length > 0) log.error({ lost }, 'families that were taken in cannot be read')
}

/** What every server must know itself is read before its people are told. */
async function heard(workshop: Workshop, word: Word): Promise<void> {
  const families = word.kind === 'news' ? word.news.id === 'families' : true
  if (families)
    await workshop
      .reloadFamilies()
      .catch((error: unknown) => workshop.log.error({ error }, 'families could not be read'))
  workshop.hub.tell(word)
}

function listening(server: Server, config: Config): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen(config.port, config.address, () => {
      server.off('error', reject)
      resolve((server.address() as AddressInfo).port)
    })
  })
}

/** Closes idle connections and streams at once, gives requests their time, then cuts the rest. */
async function drained(server: Server): Promise<void> {
  const closed = new Promise<void>((resolve) => server.close(() => resolve()))
  server.closeIdleConnections()
  const idle = setInterval(() => server.closeIdleConnections(), 100)
  const cut = setTimeout(() => server.closeAllConnections(), DRAIN_MS)
  await closed
  clearInterval(idle)
  clearTimeout(cut)
}
