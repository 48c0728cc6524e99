import { createHash } from 'node:crypto'
import { mkdtempSync, readdirSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { listFolder, openFolder } from './folder.ts'
import { NotAsPromised, NotStored } from './vault.ts'

const folder = () => mkdtempSync(join(tmpdir(), 'vault-'))
async function* chunks(...texts: readonly string[]) {
  for (const text of texts) {
    await Promise.resolve()
    yield Buffer.from(text)
  }
}
const sha256 = (text: string) => createHash('sha256').update(text).digest('hex')
async function textOf(stream: AsyncIterable<unknown>): Promise<string> {
  const parts: Buffer[] = []
  for await (const part of stream) parts.push(part as Buffer)
  return Buffer.concat(parts).toString()
}

describe('a vault', () => {
  it('knows bytes by their digest, in whatever pieces they came, and once', async () => {
    const at = folder()
    const vault = await openFolder(at)
    const stored = await vault.store(chunks('slate ', 'and chalk'))
    expect(stored).toEqual({ sha256: sha256('slate and chalk'), bytes: 15 })
    await vault.store(chunks('slate and chalk'))
    expect(await listFolder(at)).toEqual([stored.sha256])
    expect(await textOf(await vault.read(stored.sha256))).toBe('slate and chalk')
    expect(await textOf(await vault.read(stored.sha256, { from: 6, to: 9 }))).toBe('and')
  })

  it('keeps nothing of what is not as promised, or broke off on its way', async () => {
    const at = folder()
    const vault = await openFolder(at)
    await expect(vault.store(chunks('other'), sha256('promised'))).rejects.toThrow(NotAsPromised)
    const breaking = (async function* () {
      yield* chunks('half')
      throw new Error('the cable')
    })()
    await expect(vault.store(breaking)).rejects.toThrow('the cable')
    expect(await listFolder(at)).toEqual([])
    expect(readdirSync(join(at, 'under-way'))).toEqual([])
  })

  it('throws out what a killed process left under way', async () => {
    const at = folder()
    const before = await openFolder(at)
    await before.store(chunks('kept'))
    const half = join(at, 'under-way', 'half')
    writeFileSync(half, 'half')
    const longAgo = new Date(Date.now() - 3_600_000)
    utimesSync(half, longAgo, longAgo)
    const vault = await openFolder(at)
    expect(readdirSync(join(at, 'under-way'))).toEqual([])
    expect(await vault.has(sha256('kept'))).toBe(true)
  })

  it('leaves alone what comes in through another process that lives', async () => {
    const at = folder()
    const first = await openFolder(at)
    let openedBeside = false
    const slow = (async function* () {
      yield* chunks('half')
      await openFolder(at)
      openedBeside = true
      yield* chunks(' and half')
    })()
    const { sha256: digest } = await first.store(slow)
    expect([openedBeside, await first.has(digest)]).toEqual([true, true])
  })

  it('lays bytes under their digest only when told to', async () => {
    const at = folder()
    const vault = await openFolder(at)
    const received = await vault.receive(chunks('waiting'))
    expect([received.sha256, received.bytes]).toEqual([sha256('waiting'), 7])
    expect(await listFolder(at)).toEqual([])
    await received.keep()
    expect(await listFolder(at)).toEqual([received.sha256])
    const other = await vault.receive(chunks('other'))
    await other.forget()
    expect(await listFolder(at)).toEqual([received.sha256])
    expect(readdirSync(join(at, 'under-way'))).toEqual([])
  })

  it('reads nothing of a range of no bytes', async () => {
    const vault = await openFolder(folder())
    const { sha256: digest } = await vault.store(chunks('slate'))
    expect(await textOf(await vault.read(digest, { from: 2, to: 2 }))).toBe('')
  })

  it('tells by their stamp that bytes were touched', async () => {
    const at = folder()
    const vault = await openFolder(at)
    const { sha256: digest } = await vault.store(chunks('slate'))
    const before = await vault.stamp(digest)
    expect(await vault.stamp(digest)).toBe(before)
    const path = join(at, digest.slice(0, 2), digest.slice(2))
    writeFileSync(path, 'skate')
    utimesSync(path, 1, 1)
    expect(await vault.stamp(digest)).not.toBe(before)
    expect(await vault.stamp(sha256('nothing'))).toBe(undefined)
  })

  it('says what is not there, and takes no name for a digest', async () => {
    const vault = await openFolder(folder())
    await expect(vault.read(sha256('nothing'))).rejects.toThrow(NotStored)
    expect(await vault.drop(sha256('nothing'))).toBe(false)
    await expect(vault.has('../../etc/passwd')).rejects.toThrow(RangeError)
  })
})
