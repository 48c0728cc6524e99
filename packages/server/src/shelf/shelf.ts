/** The shelf as it is judged by: every package with its proof. */
import type { PackageRow } from '@plain-slate/api'
import type { Manifest, Proof, Result, Shelved } from '@plain-slate/core'
import { ok, packageKey, packageNamed, prove, refuse } from '@plain-slate/core'
import type { Refusal } from '../base/refusal.ts'
import type { Database } from '../tables/database.ts'
import type { VolumeRow } from '../tables/shelf.ts'
import { listPackages, shelfRevision } from '../tables/packages.ts'
import { listVolumes } from '../tables/shelf.ts'

export type VolumeHere = VolumeRow

export type ProvenPackage = {
  readonly key: string
  readonly manifest: Manifest
  readonly firstArchive: string
  readonly proof: Proof
  /** Its volumes that are here. */
  readonly volumes: readonly VolumeHere[]
}

/** Shelves by their revision, the one asked for last at the end: between two changes nothing is proven anew. */
const proven = new Map<string, readonly ProvenPackage[]>()
const PROVEN_MOST = 4

/** Every package, proven from what was read of the archives that its manifest names. */
export async function provenPackages(db: Database): Promise<readonly ProvenPackage[]> {
  const revision = await shelfRevision(db)
  const known = proven.get(revision)
  if (known !== undefined) return known
  const made = await proveAll(db)
  const [oldest] = proven.keys()
  if (proven.size >= PROVEN_MOST && oldest !== undefined) proven.delete(oldest)
  proven.set(revision, made)
  return made
}

async function proveAll(db: Database): Promise<readonly ProvenPackage[]> {
  const packages = await listPackages(db)
  const digests = new Set(packages.flatMap(digestsOf))
  const files = new Set(packages.flatMap(({ manifest }) => manifest.images.map(({ file }) => file)))
  const volumes = await listVolumes(db, [...digests], [...files])
  return packages.map((one) => {
    const own = digestsOf(one)
    const volumesHere = volumes.filter(({ sha256 }) => own.includes(sha256))
    return {
      ...one,
      manifest: withArchive(one, volumesHere),
      key: packageKey(one.manifest.id, one.firstArchive),
      proof: prove(one.manifest, one.firstArchive, volumes),
      volumes: volumesHere,
    }
  })
}

/** What the manifest cannot say of the archive it lies in: its digest and bytes, where it is here. */
function withArchive(
  { manifest, firstArchive }: Pick<ProvenPackage, 'manifest' | 'firstArchive'>,
  here: readonly VolumeHere[],
): Manifest {
  const bytes = here.find(({ sha256 }) => sha256 === firstArchive)?.bytes
  const [first, ...later] = manifest.archives
  if (first === undefined || bytes === undefined) return manifest
  return { ...manifest, archives: [{ ...first, sha256: firstArchive, bytes }, ...later] }
}

/** Digests of a package's volumes, as far as they are told. */
const digestsOf = ({
  manifest,
  firstArchive,
}: Pick<ProvenPackage, 'manifest' | 'firstArchive'>): readonly string[] => [
  firstArchive,
  ...manifest.archives.slice(1).flatMap(({ sha256 }) => sha256 ?? []),
]

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
export const shelvedOf = ({ key, manifest, proof }: ProvenPackage): Shelved => ({
  key,
  manifest,
  state: proof.state,
})

/** A family's part of a shelf, and of that what names each model. */
export type FamilyShelf = {
  readonly all: readonly Shelved[]
  readonly naming: ReadonlyMap<string, readonly Shelved[]>
}
const families = new WeakMap<readonly ProvenPackage[], Map<string, FamilyShelf>>()

/** What of a shelf concerns a family, sorted once for as long as the shelf is what it is. */
export function familyShelf(shelf: readonly ProvenPackage[], family: string): FamilyShelf {
  const known = families.get(shelf) ?? new Map<string, FamilyShelf>()
  families.set(shelf, known)
  const sorted = known.get(family) ?? sortedFor(shelf, family)
  known.set(family, sorted)
  return sorted
}

function sortedFor(shelf: readonly ProvenPackage[], family: string): FamilyShelf {
  const all = shelf.filter(({ manifest }) => manifest.family === family).map(shelvedOf)
  const naming = new Map<string, Shelved[]>()
  for (const one of all)
    for (const model of new Set(one.manifest.targets.map((target) => target.model)))
      put(naming, model, one)
  return { all, naming }
}

function put(naming: Map<string, Shelved[]>, model: string, one: Shelved): void {
  const mine = naming.get(model)
  if (mine === undefined) naming.set(model, [one])
  else mine.push(one)
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
