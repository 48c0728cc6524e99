/**
 * What people do with archives on the shelf: take one off and put it back, have one read again, say what
 * digest somebody outside publishes for it. Bytes of a removed archive stay until its time is up.
 */
import type { Archive, BodyOf, Contract } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Transaction } from '../tables/database.ts'
import { tell } from '../tables/news.ts'
import {
  forgetRemoved,
  insertOutside,
  markRemoved,
  readAgain,
  readArchiveRow,
  runsReading,
} from '../tables/shelf.ts'
import { dropUnowned } from './bytes.ts'
import { proveConcerned } from './proofs.ts'
import { READ_ARCHIVE } from './read-archive.ts'

type By = { readonly id: string; readonly by: string | null }

/** How long a removed archive can be put back. */
export const PUT_BACK_MS = 7 * 86_400_000

/** Off the shelf, and kept for a week: a run under way that reads its bytes forbids it. */
export function removeArchive(
  workshop: Workshop,
  { id, by }: By,
): Promise<Result<Archive, Refusal>> {
  return change(workshop, id, async (trx, row) => {
    if ((await runsReading(trx, row.sha256)) > 0)
      return { code: 'archive.in-use', facts: nameOf(row) }
    const at = new Date(await workshop.clock.now())
    if (!(await markRemoved(trx, id, at))) return { code: 'archive.state', facts: nameOf(row) }
    const facts = { archive: row.sha256, name: row.name }
    await enter(workshop, trx, { by, act: 'archive.removed', facts })
    return undefined
  })
}

/** Back on the shelf, while its bytes are kept still. */
export function restoreArchive(
  workshop: Workshop,
  { id, by }: By,
): Promise<Result<Archive, Refusal>> {
  return change(workshop, id, async (trx, row) => {
    if (!(await markRemoved(trx, id, null))) return { code: 'archive.state', facts: nameOf(row) }
    const facts = { archive: row.sha256, name: row.name }
    await enter(workshop, trx, { by, act: 'archive.restored', facts })
    return undefined
  })
}

/** Reading that failed for a reason not its own is tried once more. */
export async function readArchiveAgain(
  workshop: Workshop,
  id: string,
): Promise<Result<Archive, Refusal>> {
  const again = await change(workshop, id, async (trx, row) =>
    (await readAgain(trx, id)) ? undefined : { code: 'archive.state', facts: nameOf(row) },
  )
  if (again.ok) await workshop.enqueue(READ_ARCHIVE, { id })
  return again.ok ? now(workshop, id) : again
}

/** Keeps what somebody outside says of an archive, with who and where. */
export function publishArchive(
  workshop: Workshop,
  { id, by }: By,
  { sha256, source, where: place }: BodyOf<Contract['archivePublished']>,
): Promise<Result<Archive, Refusal>> {
  return change(workshop, id, async (trx, row) => {
    const at = new Date(await workshop.clock.now())
    await insertOutside(trx, { archive: row.sha256, sha256, source, place, by, at })
    const facts = { archive: row.sha256, name: row.name, told: sha256, source, where: place }
    await enter(workshop, trx, { by, act: 'archive.published', facts })
    return undefined
  })
}

const nameOf = ({ name, state }: Archive) => ({ name, state })

/** One change of an archive's row with its entry in the book; refused where the row is in another state. */
async function change(
  workshop: Workshop,
  id: string,
  act: (trx: Transaction, row: Archive) => Promise<Refusal | undefined>,
): Promise<Result<Archive, Refusal>> {
  const refused = await workshop.db.transaction(async (trx): Promise<Refusal | undefined> => {
    const row = await readArchiveRow(trx, id)
    if (row === undefined) return { code: 'archive.unknown', facts: { id } }
    const refusal = await act(trx, row)
    if (refusal !== undefined) return refusal
    await proveConcerned(trx, [row.sha256])
    await tell(trx, 'shelf', id, 3)
    return undefined
  })
  return refused === undefined ? now(workshop, id) : refuse(refused)
}

async function now(workshop: Workshop, id: string): Promise<Result<Archive, Refusal>> {
  const row = await readArchiveRow(workshop.db, id)
  return row === undefined ? refuse({ code: 'archive.unknown', facts: { id } }) : ok(row)
}

/** Forgets archives whose time to be put back is over, and their bytes. */
export async function purgeShelf(workshop: Workshop): Promise<{ readonly purged: number }> {
  const before = new Date((await workshop.clock.now()) - PUT_BACK_MS)
  const digests = await workshop.db.transaction(async (trx) => {
    const gone = await forgetRemoved(trx, before)
    await proveConcerned(trx, gone)
    return gone
  })
  for (const sha256 of digests) await dropUnowned(workshop, sha256)
  return { purged: digests.length }
}
