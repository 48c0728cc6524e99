/** One private PostgreSQL for the whole run, and what is built; each worker clones its database from a template. */
import { buildProcesses } from '../scripts/build/processes.mjs'
import { buildWeb } from '../scripts/build/web.ts'
import { TEST_PASSWORD, testCluster } from '../scripts/test/cluster.ts'

export default async function setup(): Promise<() => Promise<void>> {
  await Promise.all([buildWeb(), buildProcesses()])
  const cluster = await testCluster()
  process.env['E2E_SUPERUSER_URL'] = cluster.superuserUrl
  process.env['E2E_APP_PASSWORD'] = TEST_PASSWORD
  return cluster.stop
}
