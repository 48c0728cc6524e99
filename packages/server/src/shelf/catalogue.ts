/**
 * A depot's catalogue taken in: its signature held against the keys of the trust store, its number against the one
 * taken in before, its last day against today. Then every package of it is known, and every digest in it speaks from
 * outside for archives that are here or will come.
 */
import type { CatalogueRow } from '@plain-slate/api'
import type { Manifest, Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { CatalogueHead } from '../base/parse-beside.ts'
import { parseCatalogue } from '../base/parse-beside.ts'
import type { Refusal } from '../base/refusal.ts'
import type { TrustedKey } from '../base/trust.ts'
import { trustedKeys } from '../base/trust.ts'
import type { Workshop } from '../base/workshop.ts'
import { dayOf } from '../base/workshop.ts'
import { insertCatalogue, newestOf, signersOf } from '../tables/catalogues.ts'
import type { Transaction } from '../tables/database.ts'
import { tell } from '../tables/news.ts'
import type { PackageHere } from '../tables/packages.ts'
import { digestsOf, dropUnlisted, lockProofs, putKnown } from '../tables/packages.ts'
import { insertOutsideAll } from '../tables/shelf.ts'
import { proveConcerned } from './proofs.ts'

/** A longer catalogue is refused before it is read. */
export const CATALOGUE_BYTES_MAX = 64 * 1024 ** 2

type Sent = { readonly bytes: Uint8Array; readonly by: string | null }

/** Takes a catalogue in whole, or refuses it and changes nothing. It is read beside: strangers make it as large as they like. */
export async function takeCatalogue(
  workshop: Workshop,
  { bytes, by }: Sent,
): Promise<Result<CatalogueRow, Refusal>> {
  const keys = await trustedKeys(workshop)
  const read = await parseCatalogue({ bytes, keys })
  if (read === 'late') return refuse({ code: 'catalogue.late' })
  if (!read.ok)
    return refuse({
      code: 'catalogue.unreadable',
      facts: { problem: read.refusal.problem, path: read.refusal.path || 'none' },
    })
  const { head } = read.value
  const { from, number, expires, issued, packages } = head
  const key = keys.find(({ name }) => name === head.key)
  if (key === undefined) return refuse({ code: 'catalogue.unsigned', facts: { from } })
  const today = await dayOf(workshop)
  if (expires < today) return refuse({ code: 'catalogue.expired', facts: { from, expires } })
  const refused = await workshop.db.transaction(async (trx): Promise<Refusal | undefined> => {
    await lockProofs(trx)
    const bound = await boundKey(trx, from, keys)
    if (bound !== undefined && bound.id !== key.id)
      return { code: 'catalogue.other-key', facts: { from, key: key.name, bound: bound.name } }
    const before = await newestOf(trx, from)
    if (before !== undefined && before >= number)
      return { code: 'catalogue.older', facts: { from, number, before } }
    await enterAll(workshop, trx, read.value, { key, by })
    return undefined
  })
  if (refused !== undefined) return refuse(refused)
  return ok({ from, number, issued, expires, packages })
}

/**
 * The key that a depot is bound to: the one that signed its catalogues, as long as that lies in the trust store. Another
 * trusted key speaks for another depot; whoever keeps the machine takes the old key away where a depot has a new one.
 */
async function boundKey(
  trx: Transaction,
  depot: string,
  keys: readonly TrustedKey[],
): Promise<TrustedKey | undefined> {
  for (const { id, name } of await signersOf(trx, depot)) {
    const found = keys.find((one) => (id === null ? one.name === name : one.id === id))
    if (found !== undefined) return found
  }
  return undefined
}

/** Digests of one step of what may be many: between two of them others have their turn. */
const AT_ONCE = 200

async function enterAll(
  workshop: Workshop,
  trx: Transaction,
  { head, packages }: { readonly head: CatalogueHead; readonly packages: readonly Manifest[] },
  { key, by }: { readonly key: TrustedKey; readonly by: string | null },
): Promise<void> {
  const at = new Date(await workshop.clock.now())
  const { from, number } = head
  const id = await insertCatalogue(trx, { catalogue: head, key, by, at })
  const known = packages.flatMap((manifest): PackageHere[] => {
    const firstArchive = manifest.archives[0]?.sha256
    return firstArchive === undefined ? [] : [{ manifest, firstArchive }]
  })
  await putKnown(trx, known, id)
  const dropped = await dropUnlisted(trx, from, id)
  const digests = [...new Set(known.flatMap(digestsOf))]
  const place = `${from} ${number}`
  for (let done = 0; done < digests.length; done += AT_ONCE) {
    const some = digests.slice(done, done + AT_ONCE)
    await insertOutsideAll(trx, some, { source: 'catalogue', place, by, at })
    await proveConcerned(trx, some)
  }
  await enter(workshop, trx, {
    by,
    act: 'catalogue.taken',
    facts: { from, number, packages: known.length, dropped, key: key.name },
  })
  await tell(trx, 'shelf', String(id), 1)
}
