import {
  appendFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmdirSync,
  statSync,
  writeFileSync,
  writeSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { JournalEntry } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { openJournal, readJournal } from './journal.ts'

const path = () => join(mkdtempSync(join(tmpdir(), 'journal-')), 'run.jsonl')
const intend = (command: number): JournalEntry => ({ kind: 'intend', command, epoch: 3 })
const done = (command: number): JournalEntry => ({
  kind: 'done',
  command,
  evidence: { is: 'kept' },
})

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

  it('that is there and cannot be read is never written over from the mirror', () => {
    const file = path()
    /* As a failing disk or other rights would: not absent, and not to be read. */
    mkdirSync(file)
    expect(() => openJournal(file, [intend(0), done(0)])).toThrow()
    expect([statSync(file).isDirectory(), existsSync(`${file}.new`)]).toEqual([true, false])
    rmdirSync(file)
    expect(openJournal(file, [intend(0)]).entries()).toEqual([intend(0)])
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

  it('counts an entry when all of it was taken, however little the disk takes at once', () => {
    const file = path()
    const journal = openJournal(file, [], (handle, bytes, from) =>
      writeSync(handle, bytes, from, Math.min(4, bytes.length - from)),
    )
    journal.append(intend(0))
    journal.append(done(0))
    expect(readJournal(file)).toEqual([intend(0), done(0)])
  })

  it('keeps nothing of an entry that the disk has no room for, and takes the next when it has', () => {
    const file = path()
    let room = 1000
    const journal = openJournal(file, [], (handle, bytes, from) => {
      if (room === 0) throw Object.assign(new Error('no space left'), { code: 'ENOSPC' })
      const took = writeSync(handle, bytes, from, Math.min(room, bytes.length - from))
      room -= took
      return took
    })
    journal.append(intend(0))
    room = 3
    expect(() => journal.append(done(0))).toThrow('no space left')
    expect(journal.entries()).toEqual([intend(0)])
    room = 1000
    journal.append(done(0))
    expect(readFileSync(file, 'utf8')).toBe(
      `${[intend(0), done(0)].map((one) => JSON.stringify(one)).join('\n')}\n`,
    )
  })

  it('with an entry out of turn yields to a mirror that is as long, and to no shorter one', () => {
    const file = path()
    writeFileSync(file, [intend(0), done(3)].map((one) => `${JSON.stringify(one)}\n`).join(''))
    const mirror = [intend(0), done(0)]
    expect(openJournal(file, []).entries()).toEqual([intend(0), done(3)])
    expect(openJournal(file, mirror.slice(0, 1)).entries()).toEqual([intend(0), done(3)])
    expect(openJournal(file, mirror).entries()).toEqual(mirror)
  })

  it('is whichever of machine and server knows more', () => {
    const file = path()
    const mirror = [intend(0), done(0), intend(1)]
    expect(openJournal(file, mirror).entries()).toEqual(mirror)
    expect(openJournal(file, [intend(0)]).entries()).toEqual(mirror)
  })
})
