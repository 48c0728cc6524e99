/** One private PostgreSQL for the whole run; each worker clones its database from a template. */
import { buildWeb } from '../scripts/start/build.ts'
import { TEST_PASSWORD, startTestCluster } from '../scripts/test/cluster.ts'

export default async function setup(): Promise<() => Promise<void>> {
  await buildWeb()
  const cluster = await startTestCluster()
  process.env['E2E_SUPERUSER_URL'] = cluster.superuserUrl
  process.env['E2E_APP_PASSWORD'] = TEST_PASSWORD
  return cluster.stop
}
