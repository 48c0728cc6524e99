/**
 * `read --slip N --port P5 [--deep]`: reads the device at a port for its slip, as Readings does; `--open` opens one for it
 * first. Without either it is the slip whose device hangs there.
 */
import type { Job } from '@plain-slate/api'
import { endOf } from '@plain-slate/texts'
import { WANTED, WANTED_FLAGS, readArgs } from './args.ts'
import type { Args } from './args.ts'
import { Cannot } from './cannot.ts'
import { openFor, portOf, readFor } from './open-slip.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import type { Server } from './asks.ts'
import { serverOf } from './server.ts'

export async function read(args: readonly string[]): Promise<Outcome> {
  const given = readArgs(args, WANTED, [...WANTED_FLAGS, 'deep', 'open'])
  const server = serverOf(given)
  const port = given.needed('port')
  const number = await slipOf(server, given, port)
  const job = await readFor(server, number, { port, deep: given.flag('deep') })
  return { code: 0, text: textOf(number, job), json: { slip: number, facts: job.facts } }
}

async function slipOf(server: Server, given: Args, port: string): Promise<string> {
  const named = given.option('slip')
  if (named !== undefined) return named
  if (given.flag('open')) return openFor(server, given, port)
  const { slip, seen } = await portOf(server, port)
  if (slip !== null) return slip.number
  if (seen === null) throw new Cannot(say('error.port.empty', { port }))
  const device = `${seen.model} …${endOf(seen.serial)}`
  throw new Cannot(say('cli.read.none', { port, device }))
}

/** What is known of it now, a line each. */
function textOf(number: string, { facts, device }: Job): string {
  const value = (fact: string) => String(facts.find((one) => one.fact === fact)?.value ?? '')
  const head = say('cli.read', {
    number,
    device: `${value('model')} …${endOf(device?.serial ?? value('serial'))}`,
    build: value('build'),
  })
  const known = facts.filter((one) => one.value !== null)
  return [head, ...known.map((one) => `  ${say(`fact.${one.fact}`)}  ${String(one.value)}`)].join(
    '\n',
  )
}
