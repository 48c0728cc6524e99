/**
 * `book verify [FILE]`: walks the chain of an export, or of the server that runs from the data folder
 * (./data, or --data DIR), and names the first entry that does not hold. Reads line by line, so that a
 * long book needs no memory.
 */
import { createHash } from 'node:crypto'
import { createReadStream, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { Readable } from 'node:stream'
import { contract, errorSchema } from '@plain-slate/api'
import type { Break, Head, Result } from '@plain-slate/core'
import { EMPTY_HEAD, follow, ok } from '@plain-slate/core'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'

const sha256 = (bytes: Uint8Array): Uint8Array => createHash('sha256').update(bytes).digest()

/** Verifies the book that the arguments name. */
export async function bookVerify(args: readonly string[]): Promise<Outcome> {
  const at = args.indexOf('--data')
  const data = at < 0 ? 'data' : (args[at + 1] ?? 'data')
  const [file] = args.filter((_, index) => at < 0 || (index !== at && index !== at + 1))
  const opened = file === undefined ? await openServer(data) : openFile(file)
  if ('code' in opened) return opened
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

const cannot = (text: string): Outcome => ({ code: 2, text, json: { error: text } })

function openFile(file: string): Readable {
  return createReadStream(file)
}

/** Asks the running server under the bench secret, which only who may read the data folder has. */
async function openServer(data: string): Promise<Readable | Outcome> {
  try {
    const note = JSON.parse(readFileSync(join(data, 'run.json'), 'utf8')) as { address: string }
    const secret = readFileSync(join(data, 'bench.secret'), 'utf8').trim()
    const response = await fetch(new URL(contract.bookJsonl.path, note.address), {
      headers: { authorization: `Bearer ${secret}` },
    })
    if (response.ok && response.body !== null) {
      return Readable.from(response.body.pipeThrough(new TextDecoderStream()))
    }
    const { sentence } = errorSchema.parse(await response.json())
    return cannot(say('cli.refused', { sentence }))
  } catch {
    return cannot(say('cli.no-server', { data }))
  }
}
