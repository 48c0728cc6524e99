/**
 * Starts of a fresh demo beside eight busy processes and one that writes and syncs: how many come up whole, and how long
 * they take beside one that has the machine to itself. `STARTS=10` says how many.
 */
import { spawn } from 'node:child_process'
import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ROOT } from '../../scripts/bootstrap.mjs'
import { freePort } from '../../scripts/machine/ports.ts'
import { waitUntil } from '../../scripts/process/alive.ts'
import { busyMachine } from '../../e2e/start/load.ts'
import type { Row } from './row.ts'

const BUSY = 8
/** A start that takes longer has not come up. */
const PATIENCE_MS = 900_000

export async function starts(): Promise<readonly Row[]> {
  const count = Number(process.env['STARTS'] ?? 10)
  const alone = await oneStart()
  const seconds: number[] = []
  for (let n = 0; n < count; n += 1) {
    const load = busyMachine(BUSY)
    const one = await oneStart()
    load.end()
    if (one !== undefined) seconds.push(one)
  }
  const [quick = 0, slow = 0] = [Math.min(...seconds), Math.max(...seconds)]
  return [
    {
      what: `starts of a fresh demo beside ${BUSY} busy processes and one that writes and syncs`,
      measured: `${seconds.length} of ${count} up with every package on the shelf (${Math.round(quick)} to ${Math.round(slow)} s; ${Math.round(alone ?? 0)} s alone)`,
      limit: `${count} of ${count}`,
    },
  ]
}

/** Seconds until a start on a new folder says its address; undefined: it did not come up whole. */
async function oneStart(): Promise<number | undefined> {
  const folder = mkdtempSync(join(tmpdir(), 'starts-'))
  chmodSync(folder, 0o755)
  const began = performance.now()
  const args = ['start', '--silent', '--', '--port', String(await freePort()), '--data', folder]
  const child = spawn('npm', args, { cwd: ROOT, detached: true, stdio: ['ignore', 'pipe', 'pipe'] })
  let told = ''
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (text) => (told += String(text)))
  await waitUntil(() => told.includes('PIN') || child.exitCode !== null, PATIENCE_MS)
  const took = (performance.now() - began) / 1000
  const whole = told.includes('runs at') && !told.includes('Not every package')
  if (child.pid !== undefined && child.exitCode === null) process.kill(-child.pid, 'SIGINT')
  await waitUntil(() => child.exitCode !== null || child.signalCode !== null, 60_000)
  rmSync(folder, { recursive: true, force: true })
  if (!whole) console.error(told)
  return whole ? took : undefined
}
