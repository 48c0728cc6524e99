/** The shelf as it is judged by: what concerns a device, every package with what is proven of it. */
import type { PackageRow } from '@plain-slate/api'
import type { Result, Shelved } from '@plain-slate/core'
import { idOfKey, ok, packageKey, packageNamed, refuse, vouchedOf } from '@plain-slate/core'
import type { Refusal } from '../base/refusal.ts'
import type { Database } from '../tables/database.ts'
import type { PackageProven } from '../tables/packages.ts'
import { packagesCalled, packagesFor, packagesOf, shelfRevision } from '../tables/packages.ts'

export type ProvenPackage = PackageProven & { readonly key: string }

export const keyed = (packages: readonly PackageProven[]): readonly ProvenPackage[] =>
  packages.map((one) => ({ ...one, key: packageKey(one.manifest.id, one.firstArchive) }))

export type Concerned = {
  readonly family: string
  readonly model: string
  /** Digests that were read of the device. */
  readonly images: readonly string[]
}

/** Shelves by their revision and device, the one asked for last at the end: nothing is read twice between changes. */
const kept = new Map<string, readonly ProvenPackage[]>()
const KEPT_MOST = 40

/** What concerns a device: what names its model, and what holds an image that was read of it. */
export async function shelfFor(db: Database, device: Concerned): Promise<readonly ProvenPackage[]> {
  const { family, model, images } = device
  const key = [await shelfRevision(db), family, model, ...[...images].sort()].join(' ')
  const before = kept.get(key)
  if (before !== undefined) return before
  const made = keyed(await packagesFor(db, device))
  const [oldest] = kept.keys()
  if (kept.size >= KEPT_MOST && oldest !== undefined) kept.delete(oldest)
  kept.set(key, made)
  return made
}

/** Packages of a family that are looked through where nobody knows the model, at most so many. */
const FAMILY_MOST = 5000
const families = new Map<string, readonly Shelved[]>()

/** All that a family has, as rules take it; kept for one revision of the shelf. */
export async function familyShelf(db: Database, family: string): Promise<readonly Shelved[]> {
  const key = `${await shelfRevision(db)} ${family}`
  const before = families.get(key)
  if (before !== undefined) return before
  const made = keyed(await packagesOf(db, family, FAMILY_MOST)).map(shelvedOf)
  for (const old of families.keys()) if (old.endsWith(` ${family}`)) families.delete(old)
  families.set(key, made)
  return made
}

/** Packages that names mean, by their keys or ids. */
export async function namedOnShelf(
  db: Database,
  names: readonly string[],
): Promise<readonly ProvenPackage[]> {
  if (names.length === 0) return []
  const found = keyed(await packagesCalled(db, names.map(idOfKey)))
  return found.filter(({ key, manifest: { id } }) => names.includes(key) || names.includes(id))
}

/** The one package that is meant by a key, or by an id that one alone bears. */
export function packageMeant(
  shelf: readonly ProvenPackage[],
  name: string,
): Result<ProvenPackage, Refusal> {
  const named = packageNamed(shelf, name)
  switch (named.kind) {
    case 'one':
      return ok(named.found)
    case 'none':
      return refuse({ code: 'package.unknown', facts: { id: name } })
    case 'several':
      return refuse({ code: 'package.several', facts: { id: name, keys: named.keys.join(', ') } })
  }
}

/** As rules take it. */
export function shelvedOf({ key, manifest, proof }: ProvenPackage): Shelved {
  const vouched = vouchedOf(proof)
  return { key, manifest, state: proof.state, ...(vouched === undefined ? {} : { vouched }) }
}

/** What of a shelf a device's case knows, and of that what names its model; one array for as long as the shelf is one. */
type Sorted = { readonly known: readonly Shelved[]; readonly naming: readonly Shelved[] }
const sorted = new WeakMap<readonly ProvenPackage[], Sorted>()

/** A device's shelf sorted for the rules, once for as long as it is what it is. */
export function sortedFor(shelf: readonly ProvenPackage[], model: string): Sorted {
  const before = sorted.get(shelf)
  if (before !== undefined) return before
  const known = shelf.map(shelvedOf)
  const naming = known.filter(({ manifest }) =>
    manifest.targets.some((target) => target.model === model),
  )
  sorted.set(shelf, { known, naming })
  return { known, naming }
}

/** A package as a list shows it. */
export function rowOf({ key, manifest, proof }: ProvenPackage): PackageRow {
  const { id, title, family, kind, channel, build, release, patchDate, targets, images } = manifest
  return {
    key,
    id,
    title,
    family,
    kind,
    channel,
    build,
    release,
    patchDate,
    models: [...new Set(targets.map(({ model }) => model))],
    boards: [...new Set(targets.flatMap(({ boards }) => boards))],
    state: proof.state,
    bytes: images.reduce((sum, { size }) => sum + size, 0),
    scale: manifest.scale,
    held: proof.claims.filter((claim) => claim.held === 'holds').length,
    made: proof.claims.length,
  }
}
