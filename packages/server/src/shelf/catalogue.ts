/**
 * A depot's catalogue taken in: its signature held against the keys of the trust store, its number against the one
 * taken in before, its last day against today. Then every package of it is known, and every digest in it speaks from
 * outside for archives that are here or will come.
 */
import { createPublicKey, verify } from 'node:crypto'
import { readFile, readdir } from 'node:fs/promises'
import { join } from 'node:path'
import type { CatalogueRow } from '@plain-slate/api'
import type { DepotCatalogue, Result } from '@plain-slate/core'
import { ok, readCatalogue, refuse, signedText } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import { dayOf } from '../base/workshop.ts'
import { insertCatalogue, newestOf } from '../tables/catalogues.ts'
import type { Transaction } from '../tables/database.ts'
import { tell } from '../tables/news.ts'
import type { PackageHere } from '../tables/packages.ts'
import { digestsOf, dropUnlisted, lockProofs, putKnown } from '../tables/packages.ts'
import { insertOutsideAll } from '../tables/shelf.ts'
import { proveConcerned } from './proofs.ts'

/** A longer catalogue is refused before it is read. */
export const CATALOGUE_BYTES_MAX = 64 * 1024 ** 2

type Sent = { readonly text: string; readonly by: string | null }

/** Takes a catalogue in whole, or refuses it and changes nothing. */
export async function takeCatalogue(
  workshop: Workshop,
  { text, by }: Sent,
): Promise<Result<CatalogueRow, Refusal>> {
  const read = readCatalogue(text)
  if (!read.ok)
    return refuse({
      code: 'catalogue.unreadable',
      facts: { problem: read.refusal.problem, path: read.refusal.path || 'none' },
    })
  const catalogue = read.value
  const { from, number, expires } = catalogue
  const key = await signerOf(workshop, catalogue)
  if (key === undefined) return refuse({ code: 'catalogue.unsigned', facts: { from } })
  const today = await dayOf(workshop)
  if (expires < today) return refuse({ code: 'catalogue.expired', facts: { from, expires } })
  const refused = await workshop.db.transaction(async (trx): Promise<Refusal | undefined> => {
    await lockProofs(trx)
    const before = await newestOf(trx, from)
    if (before !== undefined && before >= number)
      return { code: 'catalogue.older', facts: { from, number, before } }
    await enterAll(workshop, trx, catalogue, { key, by })
    return undefined
  })
  if (refused !== undefined) return refuse(refused)
  const { issued, packages } = catalogue
  return ok({ from, number, issued, expires, packages: packages.length })
}

async function enterAll(
  workshop: Workshop,
  trx: Transaction,
  catalogue: DepotCatalogue,
  { key, by }: { readonly key: string; readonly by: string | null },
): Promise<void> {
  const at = new Date(await workshop.clock.now())
  const { from, number, packages } = catalogue
  const id = await insertCatalogue(trx, { catalogue, key, by, at })
  const known = packages.flatMap((manifest): PackageHere[] => {
    const firstArchive = manifest.archives[0]?.sha256
    return firstArchive === undefined ? [] : [{ manifest, firstArchive }]
  })
  await putKnown(trx, known, id)
  const dropped = await dropUnlisted(trx, from, id)
  const digests = [...new Set(known.flatMap(digestsOf))]
  const place = `${from} ${number}`
  await insertOutsideAll(trx, digests, { source: 'catalogue', place, by, at })
  await proveConcerned(trx, digests)
  await enter(workshop, trx, {
    by,
    act: 'catalogue.taken',
    facts: { from, number, packages: known.length, dropped, key },
  })
  await tell(trx, 'shelf', String(id), 1)
}

/** The name of the trusted key that signed a catalogue; undefined: none did. */
async function signerOf(
  workshop: Workshop,
  catalogue: DepotCatalogue,
): Promise<string | undefined> {
  const text = Buffer.from(signedText(catalogue))
  const signature = Buffer.from(catalogue.signature, 'base64')
  for (const { name, pem } of await trustedKeys(workshop))
    if (isSignedBy(pem, text, signature)) return name
  return undefined
}

function isSignedBy(pem: string, text: Uint8Array, signature: Uint8Array): boolean {
  try {
    const key = createPublicKey(pem)
    return key.asymmetricKeyType === 'ed25519' && verify(null, text, key, signature)
  } catch {
    return false
  }
}

const PEM = '.pem'

/** Public keys (SPKI, PEM) that whoever keeps this machine laid into the trust store, by their files' names. */
async function trustedKeys({
  config: { trustFolder },
}: Workshop): Promise<readonly { readonly name: string; readonly pem: string }[]> {
  if (trustFolder === undefined) return []
  const files = (await readdir(trustFolder).catch(() => [])).filter((one) => one.endsWith(PEM))
  return Promise.all(
    files.sort().map(async (file) => ({
      name: file.slice(0, -PEM.length),
      pem: await readFile(join(trustFolder, file), 'utf8').catch(() => ''),
    })),
  )
}
