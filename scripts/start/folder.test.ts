import { mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { lifeOf } from '../process/alive.ts'
import { kindOf, logIn, serverSecrets, takeFolder, writeNote } from './folder.ts'

const folder = () => mkdtempSync(join(tmpdir(), 'data-'))

describe('a data folder', () => {
  it('is held by one start at a time, and told by its address', () => {
    const at = folder()
    takeFolder(at)
    writeNote(at, 'http://127.0.0.1:4173/')
    expect(() => takeFolder(at)).toThrow('already runs')
    expect(() => takeFolder(at)).toThrow('http://127.0.0.1:4173/')
  })

  it('is free again when its holder is dead, also when its number is used by another process', () => {
    const at = folder()
    takeFolder(at)
    const life = { pid: process.pid, began: '1' }
    writeFileSync(join(at, 'run.json'), JSON.stringify({ life, address: null }))
    expect(() => takeFolder(at)).not.toThrow()
    writeFileSync(join(at, 'run.json'), '{"half')
    expect(() => takeFolder(at)).not.toThrow()
    expect(lifeOf(process.pid)?.pid).toBe(process.pid)
  })

  it('stays what it was begun as', () => {
    const demo = folder()
    expect([kindOf(demo, false), kindOf(demo, false)]).toEqual(['demo', 'demo'])
    expect(() => kindOf(demo, true)).toThrow('holds the demo shop')
    const empty = folder()
    expect([kindOf(empty, true), kindOf(empty, false)]).toEqual(['empty', 'empty'])
  })

  it('keeps its secrets from others, and keeps them', () => {
    const at = folder()
    const file = serverSecrets(at)
    const text = readFileSync(file, 'utf8')
    expect(text.split('\n').filter((line) => line.length >= 32)).toHaveLength(2)
    expect(statSync(file).mode & 0o077).toBe(0)
    expect(readFileSync(serverSecrets(at), 'utf8')).toBe(text)
  })

  it('lays a log aside that has grown large', () => {
    const at = folder()
    takeFolder(at)
    const log = logIn(at, 'server')
    writeFileSync(log, Buffer.alloc(11 * 1024 * 1024))
    logIn(at, 'server')
    expect(statSync(`${log}.1`).size).toBe(11 * 1024 * 1024)
    expect(() => statSync(log)).toThrow()
  })
})
