/**
 * A throw-away PostgreSQL for tests, with two template databases: one migrated and empty, one with
 * the demo. Started from the runner's main thread (the parent-death signal hangs on the thread), on a
 * free port, in a folder of its own: safe beside a running demo.
 */
import { chmodSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { demoImages, keepContent, seedDemo } from '@plain-slate/demo'
import { migrate, openDatabase } from '@plain-slate/server'
import { openCluster } from '../database/cluster.ts'
import { appUrl, keepBook, prepare } from '../database/prepare.ts'
import { databaseService, superuserUrl } from '../database/service.ts'
import { keepSteady } from '../database/steady.ts'
import { freePort } from '../machine/ports.ts'

export const TEMPLATES = ['demo', 'empty'] as const
export const TEST_PASSWORD = 'for-tests-only'

type TestCluster = {
  readonly superuserUrl: string
  readonly stop: () => Promise<void>
}

/** Where the test command has begun a cluster for all of its runners. */
const SHARED = 'PLAIN_SLATE_TEST_CLUSTER'

/** The cluster of the test command, or one of one's own where a runner is begun by itself. */
export async function testCluster(): Promise<Pick<TestCluster, 'superuserUrl' | 'stop'>> {
  const shared = process.env[SHARED]
  if (shared === undefined) return startTestCluster()
  return { superuserUrl: shared, stop: () => Promise.resolve() }
}

/** Begins one that every runner below this process works on. */
export async function shareTestCluster(): Promise<TestCluster> {
  const cluster = await startTestCluster()
  process.env[SHARED] = cluster.superuserUrl
  return cluster
}

/** Starts the cluster and fills the templates. */
async function startTestCluster(): Promise<TestCluster> {
  const folder = mkdtempSync(join(tmpdir(), 'plain-slate-test-'))
  chmodSync(folder, 0o755)
  mkdirSync(join(folder, 'logs'))
  const cluster = openCluster(folder)
  const port = await freePort()
  const logFile = join(folder, 'logs', 'database.log')
  const died = (how: string) => console.error(`The test database ended (${how}).`)
  const handle = await databaseService(cluster, port, { logFile, fast: true }).start(died)
  /* Whoever is begun after need not compute the demo's images again. */
  keepContent(join(folder, 'content'))
  for (const template of TEMPLATES) await fillTemplate(template)
  demoImages()

  async function fillTemplate(template: (typeof TEMPLATES)[number]): Promise<void> {
    const name = `template_${template}`
    await prepare((database) => superuserUrl(cluster, port, database), name, TEST_PASSWORD)
    const db = openDatabase(appUrl(port, name, TEST_PASSWORD))
    await migrate(db)
    await keepBook(superuserUrl(cluster, port, name))
    await keepSteady(superuserUrl(cluster, port, name))
    if (template === 'demo') await seedDemo(db, Date.now())
    await db.destroy()
  }
  return {
    superuserUrl: superuserUrl(cluster, port),
    async stop() {
      await handle.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
