/**
 * Reading an archive that is in the vault: one pass for its own digest and those of its entries, counted
 * as it goes; then its manifest, where one lies in it. Whatever its bytes are, it ends in a state: whole,
 * refused (its bytes are dropped unless another row owns them), or failed, where reading itself broke;
 * then its bytes stay and it can be read again.
 */
import type { Reading as TarReading } from '@plain-slate/archives'
import { readTar, shownName } from '@plain-slate/archives'
import type { Archive } from '@plain-slate/api'
import type { Manifest } from '@plain-slate/core'
import { manifestIn, packageKey, whyUnread } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import { tell } from '../tables/news.ts'
import type { ArchiveEnd, EntryRow } from '../tables/shelf.ts'
import { lockProofs, putPackage } from '../tables/packages.ts'
import { endReading, noteReading, readArchiveRow, senderOf } from '../tables/shelf.ts'
import { dropUnowned } from './bytes.ts'
import { proveConcerned } from './proofs.ts'

export const READ_ARCHIVE = 'read-archive'
const MANIFEST = 'manifest.json'
const MANIFEST_BYTES = 1024 * 1024
/** Between two notes of how far reading is. */
const NOTE_MS = 300
/** Characters of a fault that are kept. */
const FAULT_MOST = 200

type Ended = ArchiveEnd & { readonly manifest?: Manifest }

/** Reads one archive; does nothing when it was read already. */
export async function readArchive(workshop: Workshop, id: string): Promise<object> {
  const row = await readArchiveRow(workshop.db, id)
  if (row?.state !== 'reading') return { id, state: row?.state ?? 'unknown' }
  const state = await readToItsEnd(workshop, row)
  if (state === 'refused') await dropUnowned(workshop, row.sha256)
  return { id, state }
}

/** Whatever its bytes are, reading ends in a state: a fault of ours is `failed`, with its reason, and is logged. */
async function readToItsEnd(workshop: Workshop, row: Archive): Promise<Archive['state']> {
  try {
    const reading = await readCounted(workshop, row)
    const end = reading.ok
      ? await wholeEnd(workshop, row, reading.listing)
      : refusedEnd(row, reading)
    return await endRead(workshop, row, end)
  } catch (error) {
    workshop.log.error({ err: error, archive: row.id }, 'an archive could not be read')
    return endRead(workshop, row, failedEnd(row, error))
  }
}

/** Puts down what reading came to, and enters it. */
async function endRead(
  workshop: Workshop,
  row: Archive,
  { manifest, ...end }: Ended,
): Promise<Archive['state']> {
  await workshop.db.transaction(async (trx) => {
    /* Before any row of a package: whoever takes an archive in locks in this order too. */
    await lockProofs(trx)
    if (!(await endReading(trx, row.id, end))) return
    if (manifest !== undefined) await putPackage(trx, { manifest, firstArchive: row.sha256 })
    await proveConcerned(trx, [row.sha256])
    const facts = { archive: row.sha256, bytes: row.bytes, name: row.name }
    const by = await senderOf(trx, row.id)
    const via = by === null ? { via: 'shell' } : {}
    const { act, facts: all } = entryOf(end, { ...facts, ...via })
    await enter(workshop, trx, { by, act, facts: all })
    await tell(trx, 'shelf', row.id, 2)
  })
  return end.state
}

type Facts = Readonly<Record<string, string | number>>

/** What the book says of the end. */
function entryOf(end: ArchiveEnd, facts: Facts) {
  switch (end.state) {
    case 'refused':
      return { act: 'archive.refused', facts: { ...facts, ...end.refusal } } as const
    case 'failed':
      return { act: 'archive.failed', facts: { ...facts, why: end.trouble ?? '' } } as const
    case 'whole':
      return { act: 'archive.shelved', facts: { ...facts, package: end.package ?? '' } } as const
  }
}

/** Reads the archive once, telling now and then how far it came. */
async function readCounted(workshop: Workshop, row: Archive): Promise<TarReading> {
  let noted = 0
  const source = await workshop.vault.read(row.sha256)
  return readTar(source as AsyncIterable<Uint8Array>, (bytes) => {
    const now = performance.now()
    if (now - noted < NOTE_MS) return
    noted = now
    void noteReading(workshop.db, row.id, bytes)
      .then(() => tell(workshop.db, 'shelf', row.id, 1))
      .catch(() => undefined)
  })
}

const NOTHING = {
  refusal: null,
  entries: [],
  endMark: true,
  behind: null,
  package: null,
  trouble: null,
  stamp: null,
} as const

/** A name is escaped before it is stored: what is refused may hold any character, NUL too. */
function refusedEnd(row: Archive, reading: Extract<TarReading, { ok: false }>): Ended {
  const { entry, offset, rule } = reading.refusal
  const refusal = { entry: shownName(entry), offset, rule }
  return { ...NOTHING, state: 'refused', done: row.bytes, refusal }
}

/** A fault while reading: what it was, in a few words that fit a row. */
function failedEnd(row: Archive, error: unknown): Ended {
  const why = shownName(error instanceof Error ? error.message : String(error))
  return { ...NOTHING, state: 'failed', done: row.done, trouble: why.slice(0, FAULT_MOST) }
}

type Listing = Extract<TarReading, { ok: true }>['listing']

/** The entries as they stand, and the package whose manifest lies among the good ones. */
async function wholeEnd(workshop: Workshop, row: Archive, listing: Listing): Promise<Ended> {
  const entries = listing.entries.map(({ name, offset, size, sha256, refused }): EntryRow => ({
    name: refused === undefined ? name : shownName(name),
    offset,
    size,
    sha256,
    refused: refused ?? null,
  }))
  const end = {
    ...NOTHING,
    state: 'whole',
    done: row.bytes,
    entries,
    endMark: listing.endMark,
    behind: listing.behind ?? null,
    stamp: (await workshop.vault.stamp(row.sha256)) ?? null,
  } as const
  const listed = entries.find(({ name, refused }) => refused === null && name === MANIFEST)
  if (listed === undefined) return end
  if (listed.size > MANIFEST_BYTES) return { ...end, trouble: 'longer than 1 MiB' }
  const range = { from: listed.offset, to: listed.offset + listed.size }
  const read = manifestIn(await textOf(await workshop.vault.read(row.sha256, range)))
  if (!read.ok) return { ...end, trouble: shownName(whyUnread(read.refusal)) }
  const manifest = read.value
  return { ...end, package: packageKey(manifest.id, row.sha256), manifest }
}

async function textOf(source: AsyncIterable<unknown>): Promise<string> {
  const parts: Buffer[] = []
  for await (const part of source) parts.push(part as Buffer)
  return Buffer.concat(parts).toString('utf8')
}
