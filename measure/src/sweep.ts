/** Runs a sweep of the unit tests further than the test command has time for. */
import { spawnSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'

const ROOT = fileURLToPath(new URL('../../', import.meta.url))

/** Whether the tests at a path hold with these settings, and how many minutes that took. */
export function sweep(path: string, env: Readonly<Record<string, string>>) {
  const began = Date.now()
  const { status } = spawnSync('npx', ['vitest', 'run', '--project', 'unit', path], {
    cwd: ROOT,
    env: { ...process.env, ...env },
    stdio: ['ignore', 'inherit', 'inherit'],
  })
  return { holds: status === 0, minutes: Math.round((Date.now() - began) / 60_000) }
}
