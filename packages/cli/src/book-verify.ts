/**
 * `book verify [FILE]`: walks the chain of an export, or of the server that runs from the data folder
 * (./data, or --data DIR), and names the first entry that does not hold. `--replay N` also runs the newest
 * N runs that came from a seed again on the twin, and holds their journals against the book. Reads line by line, so that a
 * long book needs no memory.
 */
import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { createInterface } from 'node:readline'
import { Readable } from 'node:stream'
import type { Break, Head, Result } from '@plain-slate/core'
import { EMPTY_HEAD, follow, ok } from '@plain-slate/core'
import type { Args } from './args.ts'
import { readArgs } from './args.ts'
import type { EndedEntry } from './replay.ts'
import { endedSchema, replayFrom } from './replay.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { Cannot, cannot } from './cannot.ts'
import { serverOf } from './server.ts'

const sha256 = (bytes: Uint8Array): Uint8Array => createHash('sha256').update(bytes).digest()

/** Verifies the book that the arguments name. */
export async function bookVerify(args: readonly string[]): Promise<Outcome> {
  const read = readArgs(args, ['replay'])
  const {
    files: [file],
    option,
  } = read
  const wanted = option('replay')
  if (wanted !== undefined) return verifyAndReplay(read, Number(wanted))
  const opened = file === undefined ? await openServer(read) : createReadStream(file)
  try {
    return told(await walk(opened))
  } catch {
    return cannot(say('cli.no-file', { file: file ?? read.data }))
  }
}

/** The server's book, then the newest runs of it that came from a seed, run again on the twin. */
async function verifyAndReplay(read: Args, most: number): Promise<Outcome> {
  if (!Number.isSafeInteger(most) || most < 1) return cannot(say('cli.replay.number'))
  const ended: EndedEntry[] = []
  const walked = await walk(await openServer(read), (entry) => {
    const parsed = endedSchema.safeParse(entry)
    if (parsed.success) ended.push(parsed.data)
  })
  if (!walked.ok) return told(walked)
  const server = serverOf(read)
  const newest = ended.slice(-most)
  for (const entry of newest) {
    const replayed = await replayFrom(server, entry)
    if (replayed.kind === 'equal') continue
    const { seq } = entry
    const json = { holds: true, replayed: newest.length, differs: seq, what: replayed.what }
    const text = say('cli.replay.differs', { seq, what: replayed.what, run: entry.facts.run })
    return { code: 1, text, json }
  }
  const verified = told(walked)
  const n = newest.length
  return {
    ...verified,
    text: `${verified.text}\n${say('cli.replay.equal', { n })}`,
    json: { ...(verified.json as object), replayed: n },
  }
}

/** Walks the lines of a book; empty lines do not count. `seen` is told every entry that holds. */
export async function walk(
  lines: Readable,
  seen: (entry: unknown) => void = () => undefined,
): Promise<Result<Head, Break & { before: number }>> {
  let head: Head = EMPTY_HEAD
  let line = 0
  for await (const text of createInterface({ input: lines, crlfDelay: Infinity })) {
    line += 1
    if (text.trim() === '') continue
    const entry = parsed(text)
    const next = follow(head, entry, line, sha256)
    if (!next.ok) return { ok: false, refusal: { ...next.refusal, before: head.seq } }
    head = next.value
    seen(entry)
  }
  return ok(head)
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}

function told(result: Awaited<ReturnType<typeof walk>>): Outcome {
  if (result.ok) {
    const { seq, hash } = result.value
    const text = say('cli.verify.holds', { n: seq, head: hash })
    return { code: 0, text, json: { holds: true, entries: seq, head: hash } }
  }
  const { line, why, before } = result.refusal
  const seq = result.refusal.seq ?? '?'
  const json = { holds: false, ...result.refusal }
  switch (why) {
    case 'gap':
      return {
        code: 1,
        text: say('cli.verify.gap', { line, seq, expected: before + 1, before }),
        json,
      }
    case 'hash':
      return { code: 1, text: say('cli.verify.hash', { line, seq, before }), json }
    case 'unreadable':
      return { code: 1, text: say('cli.verify.unreadable', { line, seq, before }), json }
  }
}

/** Asks the running server for its book. */
async function openServer(read: Args): Promise<Readable> {
  const response = await serverOf(read).fetch('bookJsonl', {})
  if (response.body === null) throw new Cannot(say('cli.no-server', { data: read.data }))
  return Readable.from(response.body.pipeThrough(new TextDecoderStream()))
}
