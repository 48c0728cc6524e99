/** `shelve FILE…`: sends archives to the running server, waits until each is read, says what it holds. */
import { createReadStream, statSync } from 'node:fs'
import { basename } from 'node:path'
import { Readable } from 'node:stream'
import { setTimeout as pause } from 'node:timers/promises'
import type { Archive } from '@plain-slate/api'
import { contract } from '@plain-slate/api'
import { readArgs } from './args.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import type { Server } from './server.ts'
import { Cannot, serverOf } from './server.ts'

const LOOK_MS = 200

export async function shelve(args: readonly string[]): Promise<Outcome> {
  const { files, data, option } = readArgs(args, ['sha256'])
  if (files.length === 0) throw new Cannot(say('cli.usage'))
  const server = serverOf(data)
  const read: Archive[] = []
  for (const file of files) read.push(await send(server, file, option('sha256')))
  const refused = read.some(({ state }) => state === 'refused')
  return { code: refused ? 1 : 0, text: read.map(line).join('\n'), json: { archives: read } }
}

async function send(server: Server, file: string, sha256: string | undefined): Promise<Archive> {
  const bytes = sizeOf(file)
  const query = { name: basename(file), sha256 }
  const response = await server.fetch(
    'shelve',
    {
      headers: { 'content-type': 'application/octet-stream', 'content-length': String(bytes) },
      body: Readable.toWeb(createReadStream(file)) as ReadableStream,
      duplex: 'half',
    } as RequestInit,
    { query },
  )
  let row = contract.shelve.answer.parse(await response.json())
  while (row.state === 'reading') {
    await pause(LOOK_MS)
    const { archives } = await server.call('shelf')
    row = archives.find(({ id }) => id === row.id) ?? row
  }
  return row
}

function sizeOf(file: string): number {
  try {
    return statSync(file).size
  } catch {
    throw new Cannot(say('cli.no-file', { file }))
  }
}

function line({ name, state, refusal, entries, package: pack, trouble }: Archive): string {
  if (state === 'refused' && refusal !== null) {
    const { rule, entry, offset } = refusal
    const why = say(`rule.${rule as 'truncated'}`)
    return `${name}: ${say('archive.state.refused', { why, entry, offset })}`
  }
  const holds =
    trouble === null
      ? (pack ?? say('archive.no-manifest'))
      : say('archive.trouble', { why: trouble })
  return `${name}: ${say('archive.state.whole', { entries })}; ${holds}`
}
