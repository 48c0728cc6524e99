/**
 * `book verify [FILE]`: walks the chain of an export, or of the server that runs from the data folder
 * (./data, or --data DIR), and names the first entry that does not hold. Reads line by line, so that a
 * long book needs no memory.
 */
import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { createInterface } from 'node:readline'
import { Readable } from 'node:stream'
import type { Break, Head, Result } from '@plain-slate/core'
import { EMPTY_HEAD, follow, ok } from '@plain-slate/core'
import { readArgs } from './args.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { Cannot, cannot, serverOf } from './server.ts'

const sha256 = (bytes: Uint8Array): Uint8Array => createHash('sha256').update(bytes).digest()

/** Verifies the book that the arguments name. */
export async function bookVerify(args: readonly string[]): Promise<Outcome> {
  const {
    data,
    files: [file],
  } = readArgs(args)
  const opened = file === undefined ? await openServer(data) : createReadStream(file)
  try {
    return told(await walk(opened))
  } catch {
    return cannot(say('cli.no-file', { file: file ?? data }))
  }
}

/** Walks the lines of a book; empty lines do not count. */
export async function walk(lines: Readable): Promise<Result<Head, Break & { before: number }>> {
  let head: Head = EMPTY_HEAD
  let line = 0
  for await (const text of createInterface({ input: lines, crlfDelay: Infinity })) {
    line += 1
    if (text.trim() === '') continue
    const next = follow(head, parsed(text), line, sha256)
    if (!next.ok) return { ok: false, refusal: { ...next.refusal, before: head.seq } }
    head = next.value
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
async function openServer(data: string): Promise<Readable> {
  const response = await serverOf(data).fetch('bookJsonl', {})
  if (response.body === null) throw new Cannot(say('cli.no-server', { data }))
  return Readable.from(response.body.pipeThrough(new TextDecoderStream()))
}
