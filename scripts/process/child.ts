/**
 * Starting a process that cannot outlive us: in a group of its own, so that Ctrl-C reaches only the
 * start command, and with a parent-death signal (prctl(2), PR_SET_PDEATHSIG), so that even kill -9 of
 * the start command leaves no orphan. The signal is bound to the thread that spawned: call this from
 * the main thread only.
 */
import { spawn } from 'node:child_process'
import type { ChildProcess } from 'node:child_process'
import { openSync } from 'node:fs'

export type ChildPlan = {
  readonly command: readonly string[]
  /** Sent when we die, and first when it is to stop. */
  readonly endSignal: 'SIGTERM' | 'SIGINT'
  readonly env?: NodeJS.ProcessEnv
  readonly cwd?: string
  readonly user?: { readonly uid: number; readonly gid: number }
  /** Its standard error is added to this file; standard output too unless `onLine` reads it. */
  readonly logFile: string
  readonly onLine?: (line: string) => void
}

/** Starts the process. */
export function startChild(plan: ChildPlan): ChildProcess {
  const log = openSync(plan.logFile, 'a', 0o600)
  const death = `--pdeathsig=${plan.endSignal.slice(3)}`
  const child = spawn('setpriv', [death, ...plan.command], {
    detached: true,
    cwd: plan.cwd,
    env: plan.env ?? process.env,
    stdio: ['ignore', plan.onLine === undefined ? log : 'pipe', log],
    ...plan.user,
  })
  if (plan.onLine !== undefined) forEachLine(child, plan.onLine)
  return child
}

function forEachLine(child: ChildProcess, onLine: (line: string) => void): void {
  let rest = ''
  child.stdout?.setEncoding('utf8').on('data', (text: string) => {
    const lines = (rest + text).split('\n')
    rest = lines.pop() ?? ''
    lines.forEach(onLine)
  })
}

/** Asks a process to end and waits; past `patienceMs` it is killed. */
export async function endChild(
  child: ChildProcess,
  signal: NodeJS.Signals,
  patienceMs: number,
): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return
  const over = new Promise<void>((resolve) => child.once('exit', () => resolve()))
  child.kill(signal)
  const kill = setTimeout(() => child.kill('SIGKILL'), patienceMs)
  await over
  clearTimeout(kill)
}
