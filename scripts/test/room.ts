/**
 * Where tests lay their files: in memory where there is room for it. Simulated devices put their state down
 * by renaming a file at every step, which a disk takes ten times as long over.
 */
import { chmodSync, mkdtempSync, rmSync, statfsSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const MEMORY = '/dev/shm'
/** Less room than this is left alone, in bytes: a run of all tests lays down about a quarter of it. */
const LEAST_BYTES = 4 * 1024 ** 3

/** A folder of this run's own, gone when the process ends. Others may pass: the database has its own user. */
export function roomForTests(): string {
  const folder = mkdtempSync(join(hasRoom(MEMORY) ? MEMORY : tmpdir(), 'plain-slate-tests-'))
  chmodSync(folder, 0o711)
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }))
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => process.exit(1))
  return folder
}

function hasRoom(folder: string): boolean {
  try {
    const { bavail, bsize } = statfsSync(folder)
    return bavail * bsize >= LEAST_BYTES
  } catch {
    return false
  }
}
