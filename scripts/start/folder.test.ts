import { spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, statSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { lifeOf } from '../process/alive.ts'
import { ROOT } from '../bootstrap.mjs'
import { fullDisk, kindOf, logIn, seeRoom, serverSecrets, takeFolder, writeNote } from './folder.ts'

const folder = () => mkdtempSync(join(tmpdir(), 'data-'))
/** A process that takes the folder named after it, says so, and stays. */
const HOLD = `import('./scripts/start/folder.ts').then(async ({ takeFolder }) => {
  await takeFolder(process.argv[1])
  console.log('held')
  setInterval(() => {}, 1000)
})`

describe('a data folder', () => {
  it('is held by one start at a time, and told by its address', async () => {
    const at = folder()
    await takeFolder(at)
    writeNote(at, 'http://127.0.0.1:4173/')
    await expect(takeFolder(at)).rejects.toThrow('already runs')
    await expect(takeFolder(at)).rejects.toThrow('http://127.0.0.1:4173/')
  })

  it('asked for twice in the same moment is given once, by whatever way it is named', async () => {
    const at = folder()
    const other = `${at}-too`
    symlinkSync(at, other)
    const asked = await Promise.allSettled([at, other, at, other].map(takeFolder))
    expect(asked.filter(({ status }) => status === 'fulfilled')).toHaveLength(1)
  })

  it('is free again when its holder is dead, also when its number is used by another process', async () => {
    const at = folder()
    const holder = spawn(process.execPath, ['--import', 'tsx', '-e', HOLD, at], { cwd: ROOT })
    await new Promise((held) => holder.stdout.once('data', held))
    await expect(takeFolder(at)).rejects.toThrow('already runs')
    const dead = new Promise((gone) => holder.once('exit', gone))
    holder.kill('SIGKILL')
    await dead
    const life = { pid: process.pid, began: '1' }
    writeFileSync(join(at, 'run.json'), JSON.stringify({ life, address: null }))
    await takeFolder(at)
    expect(lifeOf(process.pid)?.pid).toBe(process.pid)
  })

  it('whose note of the holder is torn is free', async () => {
    const at = folder()
    writeFileSync(join(at, 'run.json'), '{"half')
    await takeFolder(at)
  })

  it('whose disk is full is named with what is free and what to remove; one with room is not', () => {
    const at = folder()
    const said = fullDisk(at, 3 * 1024 ** 2)
    expect(said).toContain(`The disk of ${at} is full: 3 MiB are free`)
    expect(said).toContain('goes on by itself')
    expect(fullDisk(at, 64 * 1024 ** 2)).toBeUndefined()
  })

  it('too small for a first start is refused before anything is begun there', () => {
    const at = folder()
    const small = 700 * 1024 ** 2
    expect(() => seeRoom(at, 'demo', small)).toThrow(
      /700 MiB free, and a first start needs 1024 MiB/,
    )
    expect(() => seeRoom(at, 'empty', small)).not.toThrow()
    writeFileSync(join(at, 'cluster.json'), '{}')
    expect(() => seeRoom(at, 'demo', 0)).not.toThrow()
  })

  it('whose note of its kind was emptied is what lies in it', () => {
    const demo = folder()
    expect(kindOf(demo, false)).toBe('demo')
    writeFileSync(join(demo, 'cluster.json'), '{}')
    mkdirSync(join(demo, 'stand-ins'))
    writeFileSync(join(demo, 'kind'), '')
    expect(() => kindOf(demo, true)).toThrow('holds the demo shop')
    expect(kindOf(demo, false)).toBe('demo')
    expect(readFileSync(join(demo, 'kind'), 'utf8').trim()).toBe('demo')
    const own = folder()
    kindOf(own, true)
    writeFileSync(join(own, 'cluster.json'), '{}')
    writeFileSync(join(own, 'kind'), 'de')
    expect(kindOf(own, false)).toBe('empty')
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

  it('lays a log aside that has grown large', async () => {
    const at = folder()
    await takeFolder(at)
    const log = logIn(at, 'server')
    writeFileSync(log, Buffer.alloc(11 * 1024 * 1024))
    logIn(at, 'server')
    expect(statSync(`${log}.1`).size).toBe(11 * 1024 * 1024)
    expect(() => statSync(log)).toThrow()
  })
})
