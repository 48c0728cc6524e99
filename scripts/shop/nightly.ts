/** Copies of the shop by themselves, in the folder that the house names: each by the shell's own command, in a process of its own. */
import { join } from 'node:path'
import { isCopyDue } from '@plain-slate/core'
import { openDatabase, readCopies } from '@plain-slate/server'
import { ROOT } from '../bootstrap.mjs'
import { endChild, startChild } from '../process/child.ts'
import type { Supervision } from '../process/supervisor.ts'
import { logIn } from '../start/folder.ts'

/** Between two looks whether one is due. */
const LOOK_MS = 60_000
const STOP_MS = 5000

/** Looks every minute until it is stopped. How a copy came out stands in the shop's own tables, and on its Counter. */
export function keepCopies(dataFolder: string, databaseUrl: string): Supervision {
  let child: ReturnType<typeof startChild> | undefined
  const look = async (): Promise<void> => {
    if (child !== undefined) return
    const db = openDatabase(databaseUrl)
    const { folder, namedAt, last, good } = await readCopies(db).finally(() => db.destroy())
    if (folder === null) return
    const times = {
      named: Date.parse(namedAt ?? ''),
      last: last && { at: Date.parse(last.at), whole: last.why === null },
      good: good && Date.parse(good.at),
    }
    if (!isCopyDue(times, Date.now(), new Date().getHours())) return
    child = startChild({
      command: [
        process.execPath,
        join(ROOT, 'packages', 'cli', 'bin', 'plain-slate.mjs'),
        ...['backup', folder, '--data', dataFolder],
      ],
      endSignal: 'SIGTERM',
      cwd: ROOT,
      logFile: logIn(dataFolder, 'copies'),
    })
    child.once('close', () => (child = undefined))
  }
  /* A database that is away is asked again a minute later. */
  const timer = setInterval(() => void look().catch(() => undefined), LOOK_MS)
  return {
    async stop() {
      clearInterval(timer)
      if (child !== undefined) await endChild(child, 'SIGTERM', STOP_MS)
    },
  }
}
