/** Vitest's global set-up of the server tests: our processes built, and one cluster for all of them. */
import type { TestProject } from 'vitest/node'
import { buildProcesses } from '../build/processes.mjs'
import { TEST_PASSWORD, testCluster } from './cluster.ts'

export async function setup(project: TestProject): Promise<() => Promise<void>> {
  await buildProcesses()
  const cluster = await testCluster()
  project.provide('superuserUrl', cluster.superuserUrl)
  project.provide('appPassword', TEST_PASSWORD)
  return cluster.stop
}
