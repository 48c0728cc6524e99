/**
 * `run --port P2 --package ID --serial END`: starts the plan's run and follows it. The end of the serial
 * number stands for the hold of the page: it names the device that is written. Enter says that hands are
 * done. The agent owns the run: ending this command ends nothing on the bench.
 */
import { createInterface } from 'node:readline'
import { setTimeout as pause } from 'node:timers/promises'
import type { PlanShown, RunShown } from '@plain-slate/api'
import { endOf, planTitle, runTitle } from '@plain-slate/texts'
import { WANTED, WANTED_FLAGS, readArgs } from './args.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { askOf } from './plan.ts'
import type { Server } from './server.ts'
import { Cannot, serverOf } from './server.ts'

const LOOK_MS = 200

/** Where a run is told while it is followed, and where hands say they are done. */
export type Terminal = {
  readonly tell: (text: string) => void
  /** Calls back for each line a person enters; answers the way to stop listening. */
  readonly hear: (entered: () => void) => () => void
}

export async function run(
  args: readonly string[],
  terminal: Terminal = ownTerminal,
): Promise<Outcome> {
  const read = readArgs(args, [...WANTED, 'serial'], WANTED_FLAGS)
  const server = serverOf(read.data)
  const body = askOf(read)
  const plan = await server.call('plan', { body })
  named(plan, read.option('serial'))
  terminal.tell(planTitle(say, plan))
  const { id } = await server.call('runStart', { body: { ...body, digest: plan.digest } })
  const ended = await follow(server, id, terminal)
  return { code: ended.state === 'ended' ? 0 : 1, text: runTitle(say, ended), json: ended }
}

/** Refuses to start unless the device that is written was named by the end of its serial number. */
function named(plan: PlanShown, serial: string | undefined): void {
  if (serial !== undefined && serial.length >= 4 && plan.serial.endsWith(serial)) return
  const lost = plan.fates.filter(({ fate }) => fate !== 'kept').map(({ name }) => name)
  throw new Cannot(
    say('cli.run.name', {
      title: plan.title,
      port: plan.port,
      end: endOf(plan.serial),
      lost: lost.length === 0 ? say('plan.start.nothing') : lost.join(', '),
    }),
  )
}

async function follow(server: Server, id: string, terminal: Terminal): Promise<RunShown> {
  const params = { id }
  let shown = await server.call('run', { params })
  let told = ''
  const unhear = terminal.hear(() => {
    const { asked } = shown
    if (asked === null) return
    server.call('runDone', { params, body: { command: asked.command } }).catch(() => undefined)
  })
  try {
    for (;;) {
      const title = runTitle(say, shown)
      if (title !== told)
        terminal.tell(shown.asked === null ? title : `${title} ${say('cli.run.enter')}`)
      told = title
      if (shown.state === 'ended' || shown.state === 'stopped') return shown
      await pause(LOOK_MS)
      shown = await server.call('run', { params })
    }
  } finally {
    unhear()
  }
}

const ownTerminal: Terminal = {
  tell: (text) => process.stderr.write(`${text}\n`),
  hear: (entered) => {
    const lines = createInterface({ input: process.stdin })
    lines.on('line', entered)
    return () => lines.close()
  },
}
