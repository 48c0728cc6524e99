/**
 * Reading an archive that is in the vault: one pass for its own digest and those of its entries, counted
 * as it goes; then its manifest, where one lies in it. A refused archive is dropped: nothing of it is
 * used, and everything else stays as it is.
 */
import type { Reading as TarReading } from '@plain-slate/archives'
import { readTar } from '@plain-slate/archives'
import { readManifest } from '@plain-slate/core'
import type { ReadArchive } from '@plain-slate/core'
import type { Archive } from '@plain-slate/api'
import { enter } from '../book/append.ts'
import type { House } from '../house.ts'
import { tell } from '../tables/news.ts'
import {
  endReading,
  listWhole,
  noteReading,
  publishedOf,
  putPackage,
  readArchiveRow,
} from '../tables/shelf.ts'
import type { ArchiveEnd } from '../tables/shelf.ts'

export const READ_ARCHIVE = 'read-archive'
const MANIFEST = 'manifest.json'
const MANIFEST_BYTES = 1024 * 1024
/** Between two notes of how far reading is. */
const NOTE_MS = 300

/** Reads one archive; does nothing when it was read already. */
export async function readArchive(house: House, id: string): Promise<object> {
  const row = await readArchiveRow(house.db, id)
  if (row?.state !== 'reading') return { id, state: row?.state ?? 'unknown' }
  const reading = await readCounted(house, row)
  const end = reading.ok
    ? await takePackage(house, row, reading.listing.entries)
    : refusedEnd(row, reading)
  await house.db.transaction(async (trx) => {
    await endReading(trx, id, end)
    const facts = { archive: row.sha256, bytes: row.bytes, name: row.name }
    const refused = { ...facts, ...end.refusal }
    await enter(house, trx, {
      by: null,
      act: end.state === 'refused' ? 'archive.refused' : 'archive.shelved',
      facts: end.state === 'refused' ? refused : { ...facts, package: end.package ?? '' },
    })
    await tell(trx, 'shelf', id, 2)
  })
  const others = (await listWhole(house.db)).some(({ sha256 }) => sha256 === row.sha256)
  if (end.state === 'refused' && !others) await house.vault.drop(row.sha256)
  return { id, state: end.state }
}

async function readCounted(house: House, row: Archive): Promise<TarReading> {
  let noted = 0
  const source = await house.vault.read(row.sha256)
  return readTar(source as AsyncIterable<Uint8Array>, (bytes) => {
    const now = Date.now()
    if (now - noted < NOTE_MS) return
    noted = now
    void noteReading(house.db, row.id, bytes)
      .then(() => tell(house.db, 'shelf', row.id, 1))
      .catch(() => undefined)
  })
}

function refusedEnd(row: Archive, reading: Extract<TarReading, { ok: false }>): ArchiveEnd {
  const { entry, offset, rule } = reading.refusal
  return {
    state: 'refused',
    done: row.bytes,
    refusal: { entry, offset, rule },
    entries: [],
    refusedEntries: 0,
    package: null,
    trouble: null,
  }
}

type Entries = Extract<TarReading, { ok: true }>['listing']['entries']

/** The entries that may be used, and the package whose manifest lies among them. */
async function takePackage(house: House, row: Archive, all: Entries): Promise<ArchiveEnd> {
  const entries: ReadArchive['entries'] = all
    .filter((entry) => entry.refused === undefined)
    .map(({ name, offset, size, sha256 }) => ({ name, offset, size, sha256 }))
  const end = {
    state: 'whole',
    done: row.bytes,
    refusal: null,
    entries,
    refusedEntries: all.length - entries.length,
    package: null,
    trouble: null,
  } as const
  const listed = entries.find(({ name }) => name === MANIFEST)
  if (listed === undefined) return end
  if (listed.size > MANIFEST_BYTES) return { ...end, trouble: 'manifest too long' }
  const range = { from: listed.offset, to: listed.offset + listed.size }
  const read = readManifest(parsed(await textOf(await house.vault.read(row.sha256, range))))
  if (!read.ok) {
    const { refusal } = read
    const why =
      refusal.kind === 'newer'
        ? `newer format ${refusal.format}`
        : `${refusal.path}: ${refusal.problem}`
    return { ...end, trouble: why }
  }
  const published = await publishedOf(house.db, row.id)
  const [first] = read.value.archives
  const manifest =
    published === null || first === undefined
      ? read.value
      : withDigest(read.value, first.file, published)
  await putPackage(house.db, { manifest, firstArchive: row.sha256 })
  return { ...end, package: manifest.id }
}

const withDigest = <M extends { published: { digests: Record<string, string> } }>(
  manifest: M,
  file: string,
  digest: string,
): M => ({
  ...manifest,
  published: {
    ...manifest.published,
    digests: { ...manifest.published.digests, [file]: digest },
  },
})

async function textOf(source: AsyncIterable<unknown>): Promise<string> {
  const parts: Buffer[] = []
  for await (const part of source) parts.push(part as Buffer)
  return Buffer.concat(parts).toString('utf8')
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}
