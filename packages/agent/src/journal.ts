/**
 * A run's journal on this machine: one line an entry, synced before it counts. What was torn off by a
 * crash in mid-line never counted. The server holds a mirror; whichever knows more is the journal.
 */
import { closeSync, fsyncSync, openSync, readFileSync, renameSync, writeSync } from 'node:fs'
import { dirname } from 'node:path'
import type { JournalEntry } from '@plain-slate/core'
import { journalEntrySchema } from '@plain-slate/core'

export type Journal = {
  readonly entries: () => readonly JournalEntry[]
  /** Durable when it returns. */
  readonly append: (entry: JournalEntry) => void
  readonly close: () => void
}

/** Opens the journal; `mirror` is what the server holds of it. */
export function openJournal(path: string, mirror: readonly JournalEntry[]): Journal {
  const here = readJournal(path)
  const entries: JournalEntry[] = [...(here.length >= mirror.length ? here : mirror)]
  writeWhole(path, entries)
  const file = openSync(path, 'a')
  return {
    entries: () => entries,
    append(entry) {
      writeSync(file, `${JSON.stringify(entry)}\n`)
      fsyncSync(file)
      entries.push(entry)
    },
    close: () => closeSync(file),
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

function textOf(path: string): string {
  try {
    return readFileSync(path, 'utf8')
  } catch {
    return ''
  }
}

function jsonOf(line: string): unknown {
  try {
    return JSON.parse(line)
  } catch {
    return undefined
  }
}

/** Beside, synced, moved in place, and the folder synced: whole or not at all. */
function writeWhole(path: string, entries: readonly JournalEntry[]): void {
  const draft = openSync(`${path}.new`, 'w', 0o600)
  writeSync(draft, entries.map((entry) => `${JSON.stringify(entry)}\n`).join(''))
  fsyncSync(draft)
  closeSync(draft)
  renameSync(`${path}.new`, path)
  const folder = openSync(dirname(path), 'r')
  fsyncSync(folder)
  closeSync(folder)
}
