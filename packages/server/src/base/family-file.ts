/**
 * A family's file as text: YAML, of which JSON is a part, with no aliases and no custom tags, bounded in size. Reads
 * text; gives the family, or every place that is wrong with its line.
 */
import type { Family, Result } from '@plain-slate/core'
import { familySchema, ok, refuse } from '@plain-slate/core'
import { issueWords } from './issue-words.ts'
import { unknownKeys } from './unknown-keys.ts'
import { LineCounter, isNode, parseDocument } from 'yaml'
import type { Document } from 'yaml'

/** The largest that is known has 17 KiB. Past any of these nothing is parsed. */
export const FAMILY_BYTES = 256 * 1024
export const FAMILY_DEPTH = 24
/** Entries of one list or of one table. */
export const FAMILY_ENTRIES = 2000
const WRONG_MOST = 40

export type WrongPlace = {
  /** From 1. */
  readonly line: number
  /** The field, as `modes.2.takes`; empty: the file as a whole. */
  readonly path: string
  readonly says: string
}

/**
 * Reads a family's file. `strict`: a key that nobody knows is wrong; what was taken in by an earlier version is read as it is.
 */
export function readFamily(
  text: string,
  { strict } = { strict: true },
): Result<Family, readonly WrongPlace[]> {
  const past = pastLimits(text)
  if (past !== undefined) return refuse([past])
  try {
    return familyIn(text, strict)
  } catch (error) {
    /* Nested deeper than its parser goes, or an alias where none is taken. */
    const says = error instanceof Error ? error.message : 'it cannot be read'
    return refuse([{ line: 1, path: '', says }])
  }
}

/** The first limit that a text is past, told without parsing it; undefined: none. */
function pastLimits(text: string): WrongPlace | undefined {
  const whole = (line: number, says: string): WrongPlace => ({ line, path: '', says })
  if (Buffer.byteLength(text) > FAMILY_BYTES)
    return whole(1, `larger than ${FAMILY_BYTES / 1024} KiB: no family is, write it shorter`)
  /* Block style nests by indentation: entries by how far they are in. Flow style nests by brackets: entries by commas. */
  const blocks = new Map<number, number>()
  const open: number[] = []
  for (const [at, line] of text.split('\n').entries()) {
    const indent = line.length - line.trimStart().length
    if (line.length === indent || line[indent] === '#') continue
    const most = Math.max(open.length > 0 ? 0 : entryAt(blocks, indent), flowEntries(open, line))
    if (most > FAMILY_ENTRIES) return whole(at + 1, TOO_MANY)
    if (blocks.size + open.length > FAMILY_DEPTH)
      return whole(at + 1, `nested deeper than ${FAMILY_DEPTH} levels`)
  }
  return undefined
}

/** Counts a line among those as far in; what is further in has ended. Answers how many there are. */
function entryAt(blocks: Map<number, number>, indent: number): number {
  for (const further of blocks.keys()) if (further > indent) blocks.delete(further)
  const count = (blocks.get(indent) ?? 0) + 1
  blocks.set(indent, count)
  return count
}

/** Follows brackets through a line; answers the most entries that one of them holds so far. */
function flowEntries(open: number[], line: string): number {
  let most = 0
  for (const letter of line) {
    if (letter === '[' || letter === '{') open.push(1)
    else if (letter === ']' || letter === '}') open.pop()
    else if (letter === ',' && open.length > 0) open.push((open.pop() ?? 0) + 1)
    most = Math.max(most, open.at(-1) ?? 0)
  }
  return most
}
const TOO_MANY = `more than ${FAMILY_ENTRIES} entries in one list or table`

function familyIn(text: string, strict: boolean): Result<Family, readonly WrongPlace[]> {
  const lineCounter = new LineCounter()
  const document = parseDocument(text, { lineCounter, prettyErrors: false })
  const odd = [...document.errors, ...document.warnings]
  if (odd.length > 0)
    return refuse(
      odd.slice(0, WRONG_MOST).map(({ pos: [at], message }) => ({
        line: lineCounter.linePos(at).line,
        path: '',
        says: message,
      })),
    )
  const raw: unknown = document.toJS({ maxAliasCount: 0 })
  const unknown = strict ? unknownKeys(familySchema, raw) : []
  const misspelt = unknown.map(({ path, key, nearest }) => ({
    path: [...path, key],
    message:
      nearest === undefined
        ? `nothing is known by the name ${key}`
        : `nothing is known by the name ${key}: ${nearest} is meant?`,
  }))
  const parsed = familySchema.safeParse(raw)
  if (parsed.success && misspelt.length === 0) return ok(parsed.data)
  /* A key that nobody knows is told as that, and not again as what is missing or amiss around it. */
  const beside = new Set(unknown.map((one) => one.path.join('.')))
  const isTold = (path: readonly PropertyKey[]) =>
    beside.has(path.join('.')) || beside.has(path.slice(0, -1).join('.'))
  const issues = (parsed.success ? [] : parsed.error.issues)
    .map((issue) => issueWords(issue, raw))
    .filter(({ path }) => path.length < 2 || !isTold(path))
  return refuse(
    [...misspelt, ...issues].slice(0, WRONG_MOST).map(({ path, message }) => ({
      line: lineCounter.linePos(placeOf(document, path)).line,
      path: path.map(String).join('.'),
      says: message,
    })),
  )
}

/** Where a field begins; of one that is not there, what it should stand in. */
function placeOf(document: Document, path: readonly PropertyKey[]): number {
  for (let length = path.length; length >= 0; length -= 1) {
    const node = document.getIn(path.slice(0, length), true)
    if (isNode(node) && node.range) return node.range[0]
  }
  return 0
}
