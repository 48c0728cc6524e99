/** The web server as a supervised process. */
import type { ChildProcess } from 'node:child_process'
import { join } from 'node:path'
import { ROOT } from '../bootstrap.mjs'
import { endChild, startChild } from '../process/child.ts'
import type { Service } from '../process/supervisor.ts'

const READY_MS = 60_000
/** Longer than the server's own draining. */
const STOP_MS = 12_000

export type ServerPlan = {
  readonly databaseUrl: string
  readonly port: number
  readonly secretsFile: string
  readonly logFile: string
}

export function webService(plan: ServerPlan): Service {
  return {
    name: 'server',
    async start(died) {
      let child: ChildProcess | undefined
      let up = false
      const ready = new Promise<void>((resolve, reject) => {
        const late = setTimeout(() => reject(new Error(`no answer; see ${plan.logFile}`)), READY_MS)
        child = startChild({
          command: [process.execPath, '--import', 'tsx', join(ROOT, 'packages/server/src/main.ts')],
          endSignal: 'SIGTERM',
          cwd: ROOT,
          env: environment(plan),
          logFile: plan.logFile,
          onLine: (line) => {
            if (line.startsWith('listening ')) resolve()
          },
        })
        child.once('exit', (code, signal) => {
          clearTimeout(late)
          if (up) died(signal ?? `code ${code ?? ''}`)
          else reject(new Error(`the server does not start; see ${plan.logFile}`))
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

function environment(plan: ServerPlan): NodeJS.ProcessEnv {
  return {
    ...process.env,
    DATABASE_URL: plan.databaseUrl,
    PLAIN_SLATE_PORT: String(plan.port),
    PLAIN_SLATE_SECRETS: plan.secretsFile,
  }
}
