/** Copies of the shop by themselves, in the folder that the house names: each by the shell's own command, in a process of its own. */
import { join } from 'node:path'
import { isCopyDue } from '@plain-slate/core'
import { insertCopy, openDatabase, readCopies } from '@plain-slate/server'
import { ROOT } from '../bootstrap.mjs'
import { endChild, startChild } from '../process/child.ts'
import type { Supervision } from '../process/supervisor.ts'
import { logIn } from '../start/folder.ts'

/** Between two looks whether one is due. */
const LOOK_MS = 60_000
const STOP_MS = 5000

/**
 * Looks every minute until it is stopped. How a copy came out stands in the shop's own tables, and on its Counter; where the
 * database is not `ours` none can be made, and that stands there.
 */
export function keepCopies(dataFolder: string, databaseUrl: string, ours: boolean): Supervision {
  let child: ReturnType<typeof startChild> | undefined
  const look = async (): Promise<void> => {
    if (child !== undefined) return
    const folder = await folderDue(databaseUrl, ours)
    if (folder === undefined) return
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

/** The folder into which a copy is due now. Of a database that is not `ours` it is put down that none can be made. */
export async function folderDue(databaseUrl: string, ours: boolean): Promise<string | undefined> {
  const db = openDatabase(databaseUrl)
  try {
    const { folder, namedAt, last, good } = await readCopies(db)
    if (folder === null) return undefined
    const times = {
      named: Date.parse(namedAt ?? ''),
      last: last && { at: Date.parse(last.at), whole: last.why === null },
      good: good && Date.parse(good.at),
    }
    if (!isCopyDue(times, Date.now(), new Date().getHours())) return undefined
    if (ours) return folder
    const why = { fault: 'other-database', facts: {} } as const
    await insertCopy(db, { folder, at: new Date().toISOString(), why, mib: 0, entries: 0 })
    return undefined
  } finally {
    await db.destroy()
  }
}
