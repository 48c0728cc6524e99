/** `shelve FILE…`: sends archives to the running server, waits until each is read, says what it holds. */
import { createReadStream, statSync } from 'node:fs'
import { basename } from 'node:path'
import { Readable } from 'node:stream'
import { setTimeout as pause } from 'node:timers/promises'
import type { Archive, EntryShown } from '@plain-slate/api'
import { contract } from '@plain-slate/api'
import { OUTSIDE } from '@plain-slate/core'
import { refusalWords } from '@plain-slate/texts'
import { oddLines, refusedLines } from './archive-words.ts'
import { readArgs } from './args.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import type { Server } from './asks.ts'
import { Cannot } from './cannot.ts'
import { serverOf } from './server.ts'

const LOOK_MS = 200

export async function shelve(args: readonly string[]): Promise<Outcome> {
  const given = readArgs(args, ['sha256', 'from', 'where'])
  const { files, option } = given
  if (files.length === 0) throw new Cannot(say('cli.usage'))
  const server = serverOf(given)
  const read: Archive[] = []
  const published = publishedOf(option)
  for (const file of files) read.push(await send(server, file, published))
  const refused = await Promise.all(read.map((row) => refusedOf(server, row)))
  const bad = read.some(({ state, refusedEntries }) => state !== 'whole' || refusedEntries > 0)
  const text = read.map((row, at) => [
    line(row),
    ...refusedLines(refused[at] ?? []),
    ...oddLines(row),
  ])
  const json = { archives: read.map((row, at) => ({ ...row, refused: refused[at] ?? [] })) }
  return { code: bad ? 1 : 0, text: text.flat().join('\n'), json }
}

type Published = {
  readonly sha256?: string
  readonly source?: (typeof OUTSIDE)[number]
  readonly where?: string
}

/** A digest from outside, who tells it and where it stands. */
function publishedOf(option: (name: string) => string | undefined): Published {
  const sha256 = option('sha256')
  if (sha256 === undefined) return {}
  const source = OUTSIDE.find((one) => one === option('from')) ?? 'person'
  return { sha256, source, where: option('where') ?? '' }
}

/** Refused entries of an archive, as far as one page tells them. */
async function refusedOf(server: Server, { id, refusedEntries }: Archive): Promise<EntryShown[]> {
  if (refusedEntries === 0) return []
  const query = { only: 'refused' as const }
  return (await server.call('archiveEntries', { params: { id }, query })).entries
}

async function send(server: Server, file: string, published: Published): Promise<Archive> {
  const bytes = sizeOf(file)
  const query = { name: basename(file), ...published }
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
  if (state === 'refused' && refusal !== null) return `${name}: ${refusalWords(say, refusal)}`
  if (state === 'failed') return `${name}: ${say('archive.state.failed', { why: trouble ?? '' })}`
  const holds =
    trouble === null
      ? (pack ?? say('archive.no-manifest'))
      : say('archive.trouble', { why: trouble })
  return `${name}: ${say('archive.state.whole', { entries })}; ${holds}`
}
