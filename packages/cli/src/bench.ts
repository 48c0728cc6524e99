/**
 * `port …` and `cable …`: laying out a bench from its own computer. A port's address or command goes into a file of the data
 * folder that no start writes anew: commands are never named through the API. The agent sees the file change.
 */
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Bench } from '@plain-slate/api'
import { readTcpAddress } from '@plain-slate/core'
import { z } from 'zod'
import { readArgs } from './args.ts'
import type { Args } from './args.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { Cannot } from './cannot.ts'
import { serverOf } from './server.ts'

const FORMAT = 'plain-slate/own-ports@1'
const ownPorts = z.object({
  format: z.literal(FORMAT),
  ports: z.record(z.string(), z.looseObject({})),
})
const NAME_MOST = 12

/** `port list`, `port add NAME ADDRESS`, `port add NAME -- COMMAND …`, `port strike NAME`. */
export async function port(args: readonly string[]): Promise<Outcome> {
  const read = readArgs(args)
  const [verb, name = '', ...way] = read.files
  if (verb === 'list') return listed(read)
  if (name === '' || name.length > NAME_MOST) throw new Cannot(say('cli.usage'))
  if (verb === 'add' && way.length > 0) return addPort(read, name, way)
  if (verb === 'strike') return strikePort(read, name)
  throw new Cannot(say('cli.usage'))
}

/** `cable add NAME [--port P2] [--note TEXT]`, `cable hang NAME [--port P2]`, `cable strike NAME`. */
export async function cable(args: readonly string[]): Promise<Outcome> {
  const read = readArgs(args, ['port', 'note'])
  const [verb, name = ''] = read.files
  if (name === '') throw new Cannot(say('cli.usage'))
  const server = serverOf(read)
  const on = read.option('port') ?? null
  if (verb === 'add') {
    const note = read.option('note') ?? ''
    await server.call('cableAdd', { body: { name, port: on, note } })
  } else if (verb === 'hang') await server.call('cableMove', { body: { cable: name, port: on } })
  else if (verb === 'strike') await server.call('cableStrike', { params: { cable: name } })
  else throw new Cannot(say('cli.usage'))
  return listed(read)
}

async function listed(read: Pick<Args, 'data' | 'as'>): Promise<Outcome> {
  const { ports, cables } = await serverOf(read).call('bench')
  const text = [...ports.map(portLine), ...cables.map(cableLine)]
  return {
    code: 0,
    text: text.length === 0 ? say('cli.bench.none') : text.join('\n'),
    json: { ports, cables },
  }
}

const portLine = ({ name, way, word, seen }: Bench['ports'][number]): string =>
  say('cli.port', {
    name,
    way: way ?? '',
    state: say(`port.${word}`),
    device: seen === null ? '' : `${seen.model} ${seen.serial}`,
  })
const cableLine = ({ name, port: on, runs, losses }: Bench['cables'][number]): string =>
  say('cli.cable', { name, port: on ?? say('bench.in-drawer'), runs, losses })

function addPort(read: Args, name: string, way: readonly string[]): Outcome {
  const [first = '', ...rest] = way
  const isAddress = rest.length === 0 && first.startsWith('tcp:')
  if (isAddress && readTcpAddress(first) === undefined)
    throw new Cannot(say('cli.port.address', { address: first }))
  change(read, (ports) => ({ ...ports, [name]: isAddress ? { address: first } : { command: way } }))
  return { code: 0, text: say('cli.port.added', { name }), json: { name } }
}

async function strikePort(read: Args, name: string): Promise<Outcome> {
  const struck = change(read, ({ [name]: own, ...rest }) => (own === undefined ? undefined : rest))
  if (!struck) await serverOf(read).call('portStrike', { params: { port: name } })
  return { code: 0, text: say('cli.port.struck', { name }), json: { name } }
}

type OwnPorts = Readonly<Record<string, object>>

/** Writes the file whole or not at all; false where nothing was to be changed. Throws Cannot where it cannot be read. */
function change({ data }: Args, how: (ports: OwnPorts) => OwnPorts | undefined): boolean {
  const file = join(data, 'own-ports.json')
  if (!existsSync(join(data, 'bench.secret'))) throw new Cannot(say('cli.no-server', { data }))
  const ports = how(existsSync(file) ? portsIn(file) : {})
  if (ports === undefined) return false
  writeFileSync(`${file}.new`, `${JSON.stringify({ format: FORMAT, ports }, undefined, 2)}\n`)
  renameSync(`${file}.new`, file)
  return true
}

function portsIn(file: string): OwnPorts {
  try {
    return ownPorts.parse(JSON.parse(readFileSync(file, 'utf8'))).ports
  } catch {
    throw new Cannot(say('cli.port.file', { file }))
  }
}
