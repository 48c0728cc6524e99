/**
 * Taking an archive in: its bytes land in the vault first, counted against the length that was declared
 * and the room it was promised; then a job reads them. Names are labels, kept escaped.
 */
import { randomUUID } from 'node:crypto'
import { statfs } from 'node:fs/promises'
import type { Archive } from '@plain-slate/api'
import { shownName, tarEnd, tarHeader, tarPadding } from '@plain-slate/archives'
import type { OutsideSource, Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import type { Received } from '@plain-slate/vault'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import { insertArchive, insertOutside, lockBytes, readArchiveRow } from '../tables/shelf.ts'
import { endUpload, noteUpload, promiseRoom } from '../tables/uploads.ts'
import { tell } from '../tables/news.ts'
import { dropUnowned } from './bytes.ts'
import { proveConcerned } from './proofs.ts'
import { READ_ARCHIVE } from './read-archive.ts'

/** Longer archives are refused before a byte is taken. */
export const ARCHIVE_BYTES_MAX = 64 * 1024 ** 3
/** Room that stays free on the vault's disk. */
const ROOM_LEFT = 512 * 1024 ** 2
/** Between two notes of how much of an upload came. */
const NOTE_MS = 1000

export type Incoming = {
  readonly name: string
  /** Length that was declared. */
  readonly bytes: number
  readonly source: AsyncIterable<Uint8Array>
  /** A digest from outside: anything else is refused; it vouches for the archive. */
  readonly published:
    { readonly sha256: string; readonly source: OutsideSource; readonly where: string } | undefined
  readonly by: string | null
}

/** Stores the bytes and has them read; refuses what is too long, or is not what was promised. */
export async function takeIn(
  workshop: Workshop,
  incoming: Incoming,
): Promise<Result<Archive, Refusal>> {
  const archive = inArchive({ ...incoming, name: shownName(incoming.name) })
  const { name, bytes } = archive
  if (!(bytes > 0 && bytes <= ARCHIVE_BYTES_MAX))
    return refuse({ code: 'archive.length', facts: { name } })
  const id = randomUUID()
  const room = (await workshop.room()) - ROOM_LEFT
  if (!(await promiseRoom(workshop.db, { id, bytes }, room)))
    return refuse({ code: 'archive.room', facts: { name, mib: Math.ceil(bytes / 1024 ** 2) } })
  try {
    const received = await receive(workshop, id, archive)
    if (!received.ok) return received
    await shelveBytes(workshop, id, archive, received.value)
  } finally {
    await endUpload(workshop.db, id)
  }
  await workshop.enqueue(READ_ARCHIVE, { id })
  const row = await readArchiveRow(workshop.db, id)
  return row === undefined ? refuse({ code: 'server.fault', facts: { id } }) : ok(row)
}

const IMAGE = '.img'

/** An image by itself is put into an archive: that is what is read here, and what packages are made of. */
function inArchive<One extends Incoming>(incoming: One): One {
  const { name, bytes, source, published } = incoming
  if (
    published !== undefined ||
    !name.endsWith(IMAGE) ||
    !(bytes > 0 && bytes <= ARCHIVE_BYTES_MAX)
  )
    return incoming
  const [head, padding, end] = [
    tarHeader(name.slice(-NAME_MOST), bytes),
    tarPadding(bytes),
    tarEnd(),
  ]
  async function* parts() {
    yield head
    yield* source
    yield padding
    yield end
  }
  return {
    ...incoming,
    name: `${name.slice(0, -IMAGE.length)}.tar`,
    bytes: head.length + bytes + padding.length + end.length,
    source: parts(),
  }
}
/** Characters of a name that fit into an archive, whatever they are. */
const NAME_MOST = 24

/** Into the vault under a draft's name, counted; nothing stays of what is short, long, or not what was promised. */
async function receive(
  workshop: Workshop,
  id: string,
  { name, bytes, source, published }: Incoming,
): Promise<Result<Received, Refusal>> {
  try {
    const received = await workshop.vault.receive(counted(workshop, id, source, bytes))
    const { bytes: got, sha256, forget } = received
    const broken = got !== bytes
    if (!broken && (published === undefined || published.sha256 === sha256)) return ok(received)
    await forget()
    return broken
      ? refuse({ code: 'archive.broken-off', facts: { name, got, bytes } })
      : refuse({ code: 'archive.other', facts: { name } })
  } catch (error) {
    if (error instanceof TooLong) return refuse({ code: 'archive.length', facts: { name } })
    if (isBrokenOff(error))
      return refuse({ code: 'archive.broken-off', facts: { name, got: 0, bytes } })
    throw error
  }
}

/** Row and bytes together: under the lock of their digest, so that no refusal drops them between. */
async function shelveBytes(
  workshop: Workshop,
  id: string,
  { name, bytes, published, by }: Incoming,
  { sha256, keep, forget }: Received,
): Promise<void> {
  const at = new Date(await workshop.clock.now())
  try {
    await workshop.db.transaction(async (trx) => {
      await lockBytes(trx, sha256)
      await insertArchive(trx, { id, name, sha256, bytes, by, at })
      if (published !== undefined) {
        const { source, where: place } = published
        await insertOutside(trx, { archive: sha256, sha256, source, place, by, at })
        await proveConcerned(trx, [sha256])
      }
      await keep()
      await tell(trx, 'shelf', id, 1)
    })
  } catch (error) {
    await forget()
    await dropUnowned(workshop, sha256).catch(() => undefined)
    throw error
  }
}

class TooLong extends Error {}

/** The same bytes, counted; more than were declared are an error. */
async function* counted(
  workshop: Workshop,
  id: string,
  source: AsyncIterable<Uint8Array>,
  bytes: number,
) {
  let got = 0
  let noted = 0
  for await (const part of source) {
    got += part.length
    if (got > bytes) throw new TooLong()
    yield part
    const now = performance.now()
    if (now - noted < NOTE_MS) continue
    noted = now
    await noteUpload(workshop.db, id, got)
  }
}

/** The sender went away, or sent nothing for too long. */
const BROKEN_OFF = ['ECONNRESET', 'ERR_STREAM_PREMATURE_CLOSE', 'ETIMEDOUT']
const isBrokenOff = (error: unknown): boolean =>
  error instanceof Error && 'code' in error && BROKEN_OFF.includes(String(error.code))

/** Bytes that are free on the disk of a folder. */
export async function roomIn(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder)
  return bavail * bsize
}
