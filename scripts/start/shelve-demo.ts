/** Begins the process that shelves the demo's packages, and says how it went. */
import { join } from 'node:path'
import { ROOT } from '../bootstrap.mjs'
import { endChild, startChild } from '../process/child.ts'
import type { Supervision } from '../process/supervisor.ts'
import { logIn } from './folder.ts'

/** What the process prints at its end. */
export const DONE = 'shelved'
export const REFUSED = 'refused'

const STOP_MS = 2000

/**
 * Shelves what the shelf does not hold yet; answers undefined, or why not everything is there. The process is among
 * what was begun, so that an end of the start ends it too.
 */
export async function shelveDemoIn(
  dataFolder: string,
  address: string,
  begun: Supervision[],
): Promise<string | undefined> {
  let told = ''
  const child = startChild({
    command: [
      process.execPath,
      '--import',
      'tsx',
      join(ROOT, 'scripts', 'start', 'shelving.ts'),
      address,
      join(dataFolder, 'bench.secret'),
    ],
    endSignal: 'SIGTERM',
    cwd: ROOT,
    logFile: logIn(dataFolder, 'shelving'),
    onLine: (line) => (told = line),
  })
  begun.push({ stop: () => endChild(child, 'SIGTERM', STOP_MS) })
  await new Promise((done) => child.once('close', done))
  if (told === DONE) return undefined
  if (told.startsWith(REFUSED)) return told.slice(REFUSED.length).trim()
  return `Look into ${join(dataFolder, 'logs', 'shelving.log')}; the next start tries again.`
}
