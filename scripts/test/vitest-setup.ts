/** Vitest's global set-up of the server tests: one cluster for all of them. */
import type { TestProject } from 'vitest/node'
import { TEST_PASSWORD, startTestCluster } from './cluster.ts'

export async function setup(project: TestProject): Promise<() => Promise<void>> {
  const cluster = await startTestCluster()
  project.provide('superuserUrl', cluster.superuserUrl)
  project.provide('appPassword', TEST_PASSWORD)
  return cluster.stop
}
