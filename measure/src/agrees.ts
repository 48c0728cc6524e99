/**
 * Rehearsal and run on many more seeded plans than the test command has time for: `AGREES_PLANS=n` tries another
 * number than ten thousand, which take the better part of an hour.
 */
import { spawnSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import type { Row } from './row.ts'

const ROOT = fileURLToPath(new URL('../../', import.meta.url))
const PLANS = process.env['AGREES_PLANS'] ?? '10000'

export function agrees(): Promise<readonly Row[]> {
  const began = Date.now()
  const { status } = spawnSync('npx', ['vitest', 'run', '--project', 'unit', 'e2e/agrees'], {
    cwd: ROOT,
    env: { ...process.env, AGREES_PLANS: PLANS },
    stdio: ['ignore', 'inherit', 'inherit'],
  })
  const minutes = Math.round((Date.now() - began) / 60_000)
  const plans = Number(PLANS).toLocaleString('en')
  return Promise.resolve([
    {
      what: `${plans} seeded plans of three families, rehearsed and run with seeded cuts`,
      measured: status === 0 ? `all agree (${minutes} min)` : 'one does not: see above',
      limit: 'all agree',
    },
  ])
}
