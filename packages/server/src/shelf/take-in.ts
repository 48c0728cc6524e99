/**
 * Taking an archive in: its bytes land in the vault first, counted against the length that was declared
 * and the room there is; then a job reads them. Names are labels.
 */
import { randomUUID } from 'node:crypto'
import { statfs } from 'node:fs/promises'
import type { Archive } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import { NotAsPromised } from '@plain-slate/vault'
import type { House } from '../house.ts'
import type { Refusal } from '../refusal.ts'
import { insertArchive, readArchiveRow } from '../tables/shelf.ts'
import { tell } from '../tables/news.ts'
import { READ_ARCHIVE } from './read-archive.ts'

/** Longer archives are refused before a byte is taken. */
export const ARCHIVE_BYTES_MAX = 64 * 1024 ** 3
/** Room that stays free on the vault's disk. */
const ROOM_LEFT = 512 * 1024 ** 2

export type Incoming = {
  readonly name: string
  /** Length that was declared. */
  readonly bytes: number
  readonly source: AsyncIterable<Uint8Array>
  readonly published: string | undefined
  readonly by: string | null
}

/** Stores the bytes and has them read; refuses what is too long, or is not what was promised. */
export async function takeIn(house: House, archive: Incoming): Promise<Result<Archive, Refusal>> {
  const { name, bytes } = archive
  if (!(bytes > 0 && bytes <= ARCHIVE_BYTES_MAX))
    return refuse({ code: 'archive.length', facts: { name } })
  const room = await roomIn(house.config.vaultFolder)
  if (bytes > room - ROOM_LEFT)
    return refuse({ code: 'archive.room', facts: { name, mib: Math.ceil(bytes / 1024 ** 2) } })
  const stored = await store(house, archive)
  if (!stored.ok) return stored
  const id = randomUUID()
  await insertArchive(house.db, {
    id,
    name,
    sha256: stored.value,
    bytes,
    published: archive.published ?? null,
    by: archive.by,
    at: new Date(await house.clock.now()),
  })
  await tell(house.db, 'shelf', id, 1)
  await house.enqueue(READ_ARCHIVE, { id })
  const row = await readArchiveRow(house.db, id)
  return row === undefined ? refuse({ code: 'server.fault', facts: { id } }) : ok(row)
}

async function store(house: House, archive: Incoming): Promise<Result<string, Refusal>> {
  const { name, bytes, source, published } = archive
  try {
    const stored = await house.vault.store(counted(source, bytes), published)
    if (stored.bytes === bytes) return ok(stored.sha256)
    return refuse({ code: 'archive.broken-off', facts: { name, got: stored.bytes, bytes } })
  } catch (error) {
    if (error instanceof NotAsPromised) return refuse({ code: 'archive.other', facts: { name } })
    if (error instanceof TooLong) return refuse({ code: 'archive.length', facts: { name } })
    if (isBrokenOff(error))
      return refuse({ code: 'archive.broken-off', facts: { name, got: 0, bytes } })
    throw error
  }
}

class TooLong extends Error {}

/** The same bytes; more than were declared are an error. */
async function* counted(source: AsyncIterable<Uint8Array>, bytes: number) {
  let got = 0
  for await (const part of source) {
    got += part.length
    if (got > bytes) throw new TooLong()
    yield part
  }
}

const isBrokenOff = (error: unknown): boolean =>
  error instanceof Error && 'code' in error && error.code === 'ECONNRESET'

async function roomIn(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder)
  return bavail * bsize
}
