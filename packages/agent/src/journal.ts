/**
 * A run's journal on this machine: one line an entry, whole and synced before it counts. What was torn off
 * by a crash in mid-line never counted. The server holds a mirror; whichever knows more is the journal, and one that
 * cannot be read is never written over from the mirror.
 */
import {
  closeSync,
  fsyncSync,
  ftruncateSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  writeSync,
} from 'node:fs'
import { dirname } from 'node:path'
import type { JournalEntry } from '@plain-slate/core'
import { followed, journalEntrySchema } from '@plain-slate/core'

export type Journal = {
  readonly entries: () => readonly JournalEntry[]
  /** Whole and durable when it returns; when it throws (a full disk) nothing of the entry is kept. */
  readonly append: (entry: JournalEntry) => void
  readonly close: () => void
}

/** Writes bytes to an open file, as many as it takes; answers how many. The system's own unless a test's. */
export type Write = (file: number, bytes: Uint8Array, from: number) => number
const plainWrite: Write = (file, bytes, from) => writeSync(file, bytes, from)

/** Opens the journal; `mirror` is what the server holds of it. Throws where it cannot be written. */
export function openJournal(
  path: string,
  mirror: readonly JournalEntry[],
  write: Write = plainWrite,
): Journal {
  const entries: JournalEntry[] = [...knowsMore(readJournal(path), mirror)]
  let length = writeWhole(path, entries, write)
  const file = openSync(path, 'a')
  return {
    entries: () => entries,
    append(entry) {
      const line = Buffer.from(lineOf(entry))
      try {
        writeAll(file, line, write)
        fsyncSync(file)
      } catch (error) {
        ftruncateSync(file, length)
        throw error
      }
      length += line.length
      entries.push(entry)
    },
    close: () => closeSync(file),
  }
}

const lineOf = (entry: JournalEntry): string => `${JSON.stringify(entry)}\n`

/**
 * The journal that knows more. One with an entry out of turn yields to another that can be followed and is
 * at least as long: where neither is, what was done after that entry nobody can say.
 */
function knowsMore(
  here: readonly JournalEntry[],
  mirror: readonly JournalEntry[],
): readonly JournalEntry[] {
  const [long, short] = here.length >= mirror.length ? [here, mirror] : [mirror, here]
  const yields = followed(long).odd !== undefined && short.length === long.length
  return yields ? short : long
}

/** A file may take fewer bytes than it was given: a line counts when all of it is there. */
function writeAll(file: number, bytes: Uint8Array, write: Write): void {
  for (let done = 0; done < bytes.length;) {
    const took = write(file, bytes, done)
    if (took <= 0) throw new Error('the disk took no more bytes')
    done += took
  }
}

/** Entries of a journal file, up to the first line that is none. */
export function readJournal(path: string): readonly JournalEntry[] {
  const entries: JournalEntry[] = []
  for (const line of textOf(path).split('\n')) {
    const parsed = journalEntrySchema.safeParse(jsonOf(line))
    if (!parsed.success) return entries
    entries.push(parsed.data)
  }
  return entries
}

/**
 * A journal that is not there is an empty one. One that is there and cannot be read (a failing disk, other rights) is
 * neither: it throws, so that nothing is written over what may be the only record.
 */
function textOf(path: string): string {
  try {
    return readFileSync(path, 'utf8')
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === 'ENOENT') return ''
    throw error
  }
}

function jsonOf(line: string): unknown {
  try {
    return JSON.parse(line)
  } catch {
    return undefined
  }
}

/** Beside, synced, moved in place, and the folder synced: whole or not at all. Answers its bytes. */
function writeWhole(path: string, entries: readonly JournalEntry[], write: Write): number {
  const bytes = Buffer.from(entries.map(lineOf).join(''))
  const draft = openSync(`${path}.new`, 'w', 0o600)
  try {
    writeAll(draft, bytes, write)
    fsyncSync(draft)
  } catch (error) {
    rmSync(`${path}.new`, { force: true })
    throw error
  } finally {
    closeSync(draft)
  }
  renameSync(`${path}.new`, path)
  const folder = openSync(dirname(path), 'r')
  fsyncSync(folder)
  closeSync(folder)
  return bytes.length
}
