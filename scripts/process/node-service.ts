/** One of our own Node processes as a supervised service: ready when it prints a line that begins so. */
import type { ChildProcess } from 'node:child_process'
import { join } from 'node:path'
import { ROOT } from '../bootstrap.mjs'
import { CannotGoOn } from '../machine/debian.ts'
import { endChild, startChild } from './child.ts'
import type { Service } from './supervisor.ts'

/** A machine that does ten other things begins them slowly. */
const READY_MS = 240_000
/** Longer than the server's own draining. */
const STOP_MS = 12_000

export type NodePlan = {
  readonly name: string
  /** The file it runs, from the repository's root, and its arguments. */
  readonly file: string
  readonly args?: readonly string[]
  readonly env: Readonly<Record<string, string>>
  readonly logFile: string
  /** Told what it printed when it became ready. */
  readonly onReady?: (line: string) => void
}

const READY = 'listening'

export function nodeService(plan: NodePlan): Service {
  return {
    name: plan.name,
    async start(died) {
      let child: ChildProcess | undefined
      let up = false
      const ready = new Promise<void>((resolve, reject) => {
        const late = setTimeout(
          () =>
            reject(new CannotGoOn(`The ${plan.name} does not answer. Look into ${plan.logFile}`)),
          READY_MS,
        )
        child = startChild({
          command: [
            process.execPath,
            '--enable-source-maps',
            join(ROOT, plan.file),
            ...(plan.args ?? []),
          ],
          endSignal: 'SIGTERM',
          cwd: ROOT,
          env: { ...process.env, ...plan.env },
          logFile: plan.logFile,
          onLine: (line) => {
            if (!line.startsWith(READY)) return
            plan.onReady?.(line.slice(READY.length).trim())
            resolve()
          },
        })
        child.once('exit', (code, signal) => {
          clearTimeout(late)
          if (up) died(signal ?? `code ${code ?? ''}`)
          else reject(new CannotGoOn(`The ${plan.name} does not start. Look into ${plan.logFile}`))
        })
      })
      try {
        await ready
      } catch (error) {
        if (child !== undefined) await endChild(child, 'SIGKILL', STOP_MS)
        throw error
      }
      up = true
      return {
        async stop() {
          up = false
          if (child !== undefined) await endChild(child, 'SIGTERM', STOP_MS)
        },
      }
    },
  }
}
