/**
 * `run --slip N --serial END`: starts the plan of a slip and follows it, through the same gate as the page;
 * `run --open --port P2 --package ID` opens a slip for the device there first. The end of the serial number
 * stands for the hold of the page: it names the device that is written. Enter says that hands are done.
 * The agent owns the run: ending this command ends nothing on the bench.
 */
import { createInterface } from 'node:readline'
import { setTimeout as pause } from 'node:timers/promises'
import type { Job, PlanShown, Ready, RunShown } from '@plain-slate/api'
import { endOf, isCode, planTitle, runTitle, sayAny } from '@plain-slate/texts'
import type { Args } from './args.ts'
import { WANTED, WANTED_FLAGS, readArgs } from './args.ts'
import { openFor, readFor } from './open-slip.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import type { Server } from './asks.ts'
import { Cannot } from './cannot.ts'
import { serverOf } from './server.ts'

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
  const read = readArgs(args, [...WANTED, 'serial'], [...WANTED_FLAGS, 'open'])
  const server = serverOf(read)
  const number = await slipOf(server, read, terminal)
  const plan = await takenOn(server, number, read.option('package'))
  named(plan, read.option('serial'))
  terminal.tell(planTitle(say, plan))
  const params = { number }
  await readyOn(server, number)
  const { id } = await server.call('jobStart', { params, body: { digest: plan.digest } })
  const ended = await follow(server, id, terminal)
  return { code: ended.state === 'ended' ? 0 : 1, text: runTitle(say, ended), json: ended }
}

/** The slip that was named, or one that is opened for the device at a port, with that device read. */
async function slipOf(server: Server, read: Args, { tell }: Terminal): Promise<string> {
  const slip = read.option('slip')
  if (slip !== undefined) return slip
  if (!read.flag('open')) throw new Cannot(say('cli.run.needs'))
  const port = read.needed('port')
  const number = await openFor(server, read, port)
  tell(say('cli.run.opened', { number }))
  await readFor(server, number, { port, deep: false })
  return number
}

/** The plan that was taken; where a package is named, its plan is taken first. */
async function takenOn(
  server: Server,
  number: string,
  pack: string | undefined,
): Promise<PlanShown> {
  const params = { number }
  if (pack !== undefined)
    await server.call('jobLines', {
      params,
      body: { lines: [{ topic: 'route.package', answer: pack }] },
    })
  const page = await server.call('jobPlan', { params })
  const { taken, now } = page
  if (taken !== null && taken.changes === null) return taken.shown
  if (now === null) throw new Cannot(page.why ?? say('error.slip.no-plan', { number }))
  await server.call('jobTake', { params, body: { digest: now.digest } })
  return now
}

/** Refuses while anything is in the way, and says what. */
async function readyOn(server: Server, number: string): Promise<void> {
  const params = { number }
  const ready = await server.call('jobReady', { params })
  const open = openIn(ready)
  if (open.length === 0) return
  const job = await server.call('job', { params })
  const what = open.map((code) => wordsOf(code, job)).join('; ')
  throw new Cannot(say('cli.run.not-ready', { number, what }))
}

const openIn = ({ checks, signed }: Ready): readonly string[] => [
  ...checks.filter(({ holds }) => !holds).map(({ check }) => `check.${check}`),
  ...signed.filter((one) => !one.signed).map(({ topic }) => `topic.${topic}`),
]

/** What is in the way, with the topic by which it can be said. */
function wordsOf(code: string, { family }: Job): string {
  const about = { what: family?.permission ?? '' }
  const words = isCode(code) ? sayAny('en-GB', code, about) : code
  return code.startsWith('topic.') ? `${words} (${code.slice('topic.'.length)})` : words
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
