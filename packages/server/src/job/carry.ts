/**
 * Carrying an owner's image over into a package: block by block it is held against that package's own image and against
 * those of every other that is here, and goes in only where it was made from this one. What comes of it is a package of its
 * own, for this device alone.
 */
import type {
  Carried,
  CarriedRole,
  ImagePlace,
  Likeness,
  NotCarried,
  Result,
} from '@plain-slate/core'
import { madeFrom, ok, refuse, roleOfFile, withCarried } from '@plain-slate/core'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import { enter } from '../book/append.ts'
import { proveConcerned } from '../shelf/proofs.ts'
import type { ProvenPackage } from '../shelf/shelf.ts'
import { packageMeant } from '../shelf/shelf.ts'
import { tell } from '../tables/news.ts'
import { lockProofs, putPackage } from '../tables/packages.ts'
import type { EntryRow } from '../tables/shelf.ts'
import { listEntries, readArchiveRow } from '../tables/shelf.ts'
import { raiseVersion } from '../tables/slips.ts'
import { blocksAt, likenessOf } from './blocks.ts'
import type { JobAt } from './job-at.ts'
import { loadJob } from './load.ts'
import { isWhole } from './packages.ts'
import { onOpenSlip } from './open-slip.ts'

type Asked = {
  /** The archive with the owner's image, by its id, and the key of the package into which it goes. */
  readonly archive: string
  readonly package: string
  readonly by: string | null
}

/** Entries of an owner's archive that are looked at. */
const ENTRIES_MOST = 100

/** Holds an owner's archive against a package, and puts the package with it on the shelf; answers the job after it. */
export async function carryOver(
  workshop: Workshop,
  number: string,
  { archive: id, package: key, by }: Asked,
): Promise<Result<JobAt, Refusal>> {
  const loaded = await loadJob(workshop, number)
  if (!loaded.ok) return loaded
  const { serial, shelf } = loaded.value
  if (serial === undefined) return refuse({ code: 'carry.unread', facts: { number } })
  const meant = packageMeant(shelf, key)
  if (!meant.ok) return meant
  const base = meant.value
  const { kind, title, carried } = base.manifest
  if (kind !== 'full' || carried !== undefined || !isWhole(base))
    return refuse({ code: 'carry.base', facts: { title } })
  const row = await readArchiveRow(workshop.db, id)
  if (row?.state !== 'whole' || row.removedAt !== null)
    return refuse({ code: 'archive.unknown', facts: { id } })
  const page = { archive: id, after: -1, refused: false, limit: ENTRIES_MOST }
  const images = imagesIn(await listEntries(workshop.db, page))
  const own = await heldAgainst(workshop, { base, shelf, archive: row.sha256 }, images)
  if (!own.ok) return own
  if (own.value.length === 0) return refuse({ code: 'carry.none', facts: { name: row.name } })
  const from = {
    archive: { file: `own-${row.sha256.slice(0, 8)}.tar`, sha256: row.sha256 },
    serial,
  }
  const manifest = withCarried(base.manifest, own.value, from)
  return onOpenSlip(workshop, number, async (trx) => {
    await lockProofs(trx)
    await putPackage(trx, { manifest, firstArchive: base.firstArchive })
    await proveConcerned(trx, [row.sha256])
    const roles = own.value.map(({ role, percent }) => `${role} ${percent} %`).join(', ')
    const facts = { package: title, roles, archive: row.sha256, serial }
    await enter(workshop, trx, { by, act: 'package.carried', slip: number, facts })
    await tell(trx, 'shelf', id, 4)
    await tell(trx, 'slip', number, await raiseVersion(trx, number))
    return undefined
  })
}

type Found = EntryRow & { readonly role: CarriedRole }

/** Entries that are images of a part that may be carried over, by their names. */
const imagesIn = (entries: readonly EntryRow[]): readonly Found[] =>
  entries.flatMap((one) => {
    const role = one.refused === null ? roleOfFile(one.name) : undefined
    return role === undefined ? [] : [{ ...one, role }]
  })

type Against = {
  readonly base: ProvenPackage
  readonly shelf: readonly ProvenPackage[]
  readonly archive: string
}

/**
 * Each image: one that is the package's own, byte by byte, is its companion and stays; any other must have been made from
 * it. One of another package among them refuses them all.
 */
async function heldAgainst(
  workshop: Workshop,
  against: Against,
  images: readonly Found[],
): Promise<Result<readonly Carried[], Refusal>> {
  const own: Carried[] = []
  for (const { role, name, offset, size, sha256 } of images) {
    if (against.base.manifest.images.some((one) => one.sha256 === sha256)) continue
    if (own.some((one) => one.role === role))
      return refuse({ code: 'carry.twice', facts: { role } })
    const place = { archive: against.archive, offset, size }
    const made = madeFrom(await likenesses(workshop, against, { role, place }), against.base.key)
    if (!made.ok) return refuse(refusalOf(role, made.refusal))
    own.push({ role, file: name, size, sha256, percent: made.value.percent })
  }
  return ok(own)
}

/** How alike it is to the image of its role in every package whose bytes are here; the same image is read once. */
async function likenesses(
  workshop: Workshop,
  { base, shelf }: Against,
  { role, place }: { readonly role: CarriedRole; readonly place: ImagePlace },
): Promise<readonly Likeness[]> {
  const { vault } = workshop
  const mine = await blocksAt(vault, place)
  const others = shelf.filter(({ key, manifest }) => {
    const { kind, carried, build } = manifest
    return key === base.key || (kind === 'full' && !carried && build !== base.manifest.build)
  })
  const found: Likeness[] = []
  const alike = new Map<string, ReturnType<typeof likenessOf>>()
  for (const { key, manifest, proof } of others) {
    const image = manifest.images.find((one) => one.role === role)
    const its = image && proof.places.get(image.sha256)
    if (image === undefined || its === undefined) continue
    const like = alike.get(image.sha256) ?? likenessOf(mine, await blocksAt(vault, its))
    alike.set(image.sha256, like)
    found.push({ package: key, build: manifest.build, ...like })
  }
  return found
}

const refusalOf = (role: CarriedRole, no: NotCarried): Refusal =>
  no.why === 'other'
    ? { code: 'carry.other', facts: { role, build: no.build, percent: no.percent, here: no.here } }
    : { code: 'carry.unlike', facts: { role, here: no.here } }
