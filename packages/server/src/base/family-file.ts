/**
 * A family's file as text: YAML, of which JSON is a part, with no aliases and no custom tags, bounded in size. Reads
 * text; gives the family, or every place that is wrong with its line.
 */
import type { Family, Result } from '@plain-slate/core'
import { familySchema, ok, refuse } from '@plain-slate/core'
import { LineCounter, isNode, parseDocument } from 'yaml'
import type { Document } from 'yaml'

export const FAMILY_BYTES = 1024 * 1024
const WRONG_MOST = 40

export type WrongPlace = {
  /** From 1. */
  readonly line: number
  /** The field, as `modes.2.takes`; empty: the file as a whole. */
  readonly path: string
  readonly says: string
}

export function readFamily(text: string): Result<Family, readonly WrongPlace[]> {
  if (Buffer.byteLength(text) > FAMILY_BYTES)
    return refuse([{ line: 1, path: '', says: `larger than ${FAMILY_BYTES} bytes` }])
  try {
    return familyIn(text)
  } catch (error) {
    /* Nested deeper than its parser goes, or an alias where none is taken. */
    const says = error instanceof Error ? error.message : 'it cannot be read'
    return refuse([{ line: 1, path: '', says }])
  }
}

function familyIn(text: string): Result<Family, readonly WrongPlace[]> {
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
  const parsed = familySchema.safeParse(document.toJS({ maxAliasCount: 0 }))
  if (parsed.success) return ok(parsed.data)
  return refuse(
    parsed.error.issues.slice(0, WRONG_MOST).map(({ path, message }) => ({
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
