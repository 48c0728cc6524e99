/**
 * A vault in a folder: `ab/cdef…` by digest. Bytes are written beside under a name of chance, synced,
 * and moved in place when whole, so that a crash leaves nothing under a digest that is not it.
 */
import { createHash, randomUUID } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { Readable } from 'node:stream'
import type { Digest, Vault } from './vault.ts'
import { NotAsPromised, NotStored } from './vault.ts'

const UNDER_WAY = 'under-way'

/** What is under way is touched at least this often while bytes come: what is older belongs to the dead. */
const STILL_MS = 10 * 60_000

/**
 * Opens the folder. One that writes sweeps: what a killed process left under way is thrown out. What comes in
 * through another process beside it, that lives, is left alone. Others that only read must not sweep.
 */
export async function openFolder(folder: string, { sweep } = { sweep: true }): Promise<Vault> {
  const underWay = join(folder, UNDER_WAY)
  await mkdir(underWay, { recursive: true })
  if (sweep) await throwOutOld(underWay)
  const pathOf = (digest: Digest): string => {
    if (!/^[0-9a-f]{64}$/.test(digest)) throw new RangeError(`no digest: ${digest}`)
    return join(folder, digest.slice(0, 2), digest.slice(2))
  }
  const size = async (digest: Digest) => (await stat(pathOf(digest)).catch(() => undefined))?.size

  const receive: Vault['receive'] = async (source) => {
    const draft = join(underWay, randomUUID())
    const forget = () => rm(draft, { force: true })
    try {
      const stored = await writeDown(draft, source)
      const path = pathOf(stored.sha256)
      const keep = async () => {
        await mkdir(dirname(path), { recursive: true })
        await rename(draft, path)
      }
      return { ...stored, keep, forget }
    } catch (error) {
      await forget()
      throw error
    }
  }
  return {
    size,
    receive,
    async stamp(digest) {
      const found = await stat(pathOf(digest)).catch(() => undefined)
      return found === undefined ? undefined : `${found.size} ${Math.round(found.mtimeMs)}`
    },
    has: async (digest) => (await size(digest)) !== undefined,
    async store(source, expected) {
      const { sha256, bytes, keep, forget } = await receive(source)
      if (expected !== undefined && sha256 !== expected) {
        await forget()
        throw new NotAsPromised(expected, sha256)
      }
      await keep()
      return { sha256, bytes }
    },
    async read(digest, range) {
      if ((await size(digest)) === undefined) throw new NotStored(digest)
      if (range !== undefined && range.from >= range.to) return Readable.from([])
      const within = range === undefined ? {} : { start: range.from, end: range.to - 1 }
      return createReadStream(pathOf(digest), { highWaterMark: 1 << 20, ...within })
    },
    async drop(digest) {
      const there = (await size(digest)) !== undefined
      await rm(pathOf(digest), { force: true })
      return there
    },
  }
}

async function throwOutOld(underWay: string): Promise<void> {
  for (const name of await readdir(underWay)) {
    const path = join(underWay, name)
    const touched = (await stat(path).catch(() => undefined))?.mtimeMs ?? Infinity
    if (Date.now() - touched > STILL_MS) await rm(path, { force: true })
  }
}

async function writeDown(path: string, source: AsyncIterable<Uint8Array>) {
  const hash = createHash('sha256')
  const file = await open(path, 'wx', 0o600)
  let bytes = 0
  try {
    for await (const chunk of source) {
      hash.update(chunk)
      await file.write(chunk)
      bytes += chunk.length
    }
    await file.sync()
  } finally {
    await file.close()
  }
  return { sha256: hash.digest('hex'), bytes }
}

/** Every digest of a folder vault, for checks and counts. */
export async function listFolder(folder: string): Promise<readonly Digest[]> {
  const files = await readdir(folder, { recursive: true })
  return files
    .map((file) => file.replace('/', ''))
    .filter((name) => /^[0-9a-f]{64}$/.test(name))
    .sort()
}
