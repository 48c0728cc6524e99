import { appendFileSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { JournalEntry } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { openJournal, readJournal } from './journal.ts'

const path = () => join(mkdtempSync(join(tmpdir(), 'journal-')), 'run.jsonl')
const intend = (command: number): JournalEntry => ({ kind: 'intend', command, epoch: 3 })
const done = (command: number): JournalEntry => ({ kind: 'done', command, evidence: 'kept' })

describe('a run’s journal', () => {
  it('holds every entry as soon as it is entered, and is read back the same', () => {
    const file = path()
    const journal = openJournal(file, [])
    for (const entry of [intend(0), done(0), intend(1)]) {
      journal.append(entry)
      expect(readJournal(file).at(-1)).toEqual(entry)
    }
    journal.close()
    expect(openJournal(file, []).entries()).toEqual([intend(0), done(0), intend(1)])
  })

  it('counts a line torn off by a crash as never written, and goes on after it', () => {
    const file = path()
    const whole = [intend(0), done(0)].map((entry) => `${JSON.stringify(entry)}\n`).join('')
    writeFileSync(file, whole)
    appendFileSync(file, JSON.stringify(intend(1)).slice(0, 20))
    const journal = openJournal(file, [])
    expect(journal.entries()).toEqual([intend(0), done(0)])
    journal.append(intend(1))
    journal.close()
    expect(readFileSync(file, 'utf8').trim().split('\n')).toHaveLength(3)
  })

  it('is whichever of machine and server knows more', () => {
    const file = path()
    const mirror = [intend(0), done(0), intend(1)]
    expect(openJournal(file, mirror).entries()).toEqual(mirror)
    expect(openJournal(file, [intend(0)]).entries()).toEqual(mirror)
  })
})
