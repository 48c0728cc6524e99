/**
 * Packages as they are kept: the manifest of each, by which archive it is known, what was proven of it. Locking
 * contract: whoever writes a proof holds `lockProofs` to the end of the transaction, and reads archives after it, so
 * that of two volumes that are read at one time the later one's transaction sees both.
 */
import type { ImagePlace, Manifest, Proof, ProofClaim } from '@plain-slate/core'
import { manifestSchema } from '@plain-slate/core'
import type { Knex } from 'knex'
import type { Database, Transaction } from './database.ts'
import type { VolumeRow } from './shelf.ts'

/** What the shelf's packages follow from: equal revisions, equal packages. Names the database too. */
export async function shelfRevision(db: Database): Promise<string> {
  const { rows } = (await db.raw(
    `select current_database() || ' ' || count(*) || ' ' || coalesce(max(id), 0) as revision
     from shelf_changes`,
  )) as { rows: { revision: string }[] }
  return rows[0]?.revision ?? ''
}

/** A volume that is here whole: its bytes, and what shows whether it was touched since it was read. */
export type VolumeHere = Pick<VolumeRow, 'name' | 'sha256' | 'bytes' | 'stamps'>

export type PackageHere = { readonly manifest: Manifest; readonly firstArchive: string }
export type PackageProven = PackageHere & {
  readonly proof: Proof
  readonly volumes: readonly VolumeHere[]
}

type StoredProof = {
  readonly claims: readonly ProofClaim[]
  readonly places: readonly (readonly [image: string, place: ImagePlace])[]
  readonly volumes: readonly VolumeHere[]
}
type Row = {
  readonly manifest: unknown
  readonly first_archive: string
  readonly state: Proof['state']
  readonly proof: StoredProof | null
}

/** Packages whose first archive is on the shelf, and those that a catalogue tells of. */
const shown = (db: Database) =>
  db('packages').where((which) =>
    which
      .whereNotNull('catalogue')
      .orWhereExists((there) =>
        there
          .from('archives')
          .whereRaw('archives.sha256 = packages.first_archive')
          .whereNull('archives.removed_at'),
      ),
  )

const NEWEST = `manifest->>'patchDate' desc`

/** By their ids, and then by their archives, after whatever order was asked for. */
async function provenIn(query: Knex.QueryBuilder): Promise<PackageProven[]> {
  const rows = (await query
    .orderBy(['id', 'first_archive'])
    .select('manifest', 'first_archive', 'state', 'proof')) as Row[]
  return rows.map(({ manifest, first_archive: firstArchive, state, proof }) => {
    const volumes = proof?.volumes ?? []
    return {
      manifest: withArchive(manifestSchema.parse(manifest), firstArchive, volumes),
      firstArchive,
      proof: { claims: proof?.claims ?? [], state, places: new Map(proof?.places ?? []) },
      volumes,
    }
  })
}

/** What the manifest cannot say of the archive it lies in: its digest and bytes, where it is here. */
function withArchive(
  manifest: Manifest,
  firstArchive: string,
  here: readonly VolumeHere[],
): Manifest {
  const bytes = here.find(({ sha256 }) => sha256 === firstArchive)?.bytes
  const [first, ...later] = manifest.archives
  if (first === undefined || bytes === undefined) return manifest
  return { ...manifest, archives: [{ ...first, sha256: firstArchive, bytes }, ...later] }
}

/** What concerns a device: what names its model, and what holds an image that was read of it. */
export const packagesFor = (
  db: Database,
  {
    family,
    model,
    images,
  }: { readonly family: string; readonly model: string; readonly images: readonly string[] },
): Promise<PackageProven[]> =>
  provenIn(
    shown(db)
      .where({ family })
      .where((which) =>
        which.whereRaw('models @> ?', [[model]]).orWhereRaw('images && ?', [[...images]]),
      ),
  )

/** Packages of a family that name any of these models and not that one, the newest first, at most so many. */
export const packagesNaming = (
  db: Database,
  {
    family,
    models,
    not = '',
    most,
  }: {
    readonly family: string
    readonly models: readonly string[]
    readonly not?: string
    readonly most: number
  },
): Promise<PackageProven[]> =>
  provenIn(
    shown(db)
      .where({ family })
      .whereRaw('models && ?', [[...models]])
      .whereRaw('not models @> ?', [[not]])
      .orderByRaw(NEWEST)
      .limit(most),
  )

/** Packages of a family, at most so many. */
export const packagesOf = (db: Database, family: string, most: number): Promise<PackageProven[]> =>
  provenIn(shown(db).where({ family }).limit(most))

/** Packages by their ids. */
export const packagesCalled = (db: Database, ids: readonly string[]): Promise<PackageProven[]> =>
  provenIn(shown(db).whereIn('id', [...ids]))

/** Packages that hold any of these images. */
export const packagesHolding = (
  db: Database,
  images: readonly string[],
): Promise<PackageProven[]> => provenIn(shown(db).whereRaw('images && ?', [[...images]]))

export type ShelfCounts = {
  readonly all: number
  /** Of the family; naming the model. */
  readonly family: number
  readonly naming: number
}

export async function countPackages(
  db: Database,
  { family, model }: { readonly family: string | undefined; readonly model: string | undefined },
): Promise<ShelfCounts> {
  const [row] = (await shown(db).select(
    db.raw('count(*)::int as all'),
    db.raw('count(*) filter (where family = ?)::int as family', [family ?? '']),
    db.raw('count(*) filter (where models @> ?)::int as naming', [[model ?? '']]),
  )) as ShelfCounts[]
  return row ?? { all: 0, family: 0, naming: 0 }
}

/** Every model that packages of a family name. */
export async function modelsNamed(db: Database, family: string): Promise<readonly string[]> {
  const rows = (await shown(db).where({ family }).distinct(db.raw('unnest(models) as model'))) as {
    model: string
  }[]
  return rows.map(({ model }) => model)
}

export type PackagesAsked = {
  /** Words of which each is in title, id, build or a model; '' for all. */
  readonly find: string
  readonly state?: Proof['state'] | undefined
  readonly after: number
  readonly limit: number
}

/** A page of packages, the newest first, with how many there are of each state. */
export async function listPackages(
  db: Database,
  { find, state, after, limit }: PackagesAsked,
): Promise<{
  readonly packages: readonly PackageProven[]
  readonly states: Readonly<Partial<Record<Proof['state'], number>>>
}> {
  const found = () => {
    const query = shown(db)
    for (const word of find.split(/\s+/).filter((one) => one !== ''))
      query.whereRaw(
        `concat_ws(' ', id, manifest->>'title', manifest->>'build',
        array_to_string(models, ' ')) ilike ?`,
        [`%${word.replace(/[\\%_]/g, '\\$&')}%`],
      )
    return query
  }
  const counts = (await found().groupBy('state').select('state', db.raw('count(*)::int as n'))) as {
    state: Proof['state']
    n: number
  }[]
  const page = state === undefined ? found() : found().where({ state })
  return {
    packages: await provenIn(page.orderByRaw(NEWEST).offset(after).limit(limit)),
    states: Object.fromEntries(counts.map((one) => [one.state, one.n])),
  }
}

/** Holds the proofs of packages to the end of the transaction. */
export async function lockProofs(trx: Transaction): Promise<void> {
  await trx.raw(`select pg_advisory_xact_lock(hashtextextended('proofs of packages', 0))`)
}

/** Packages of which any of these archives is a volume; those never proven, where none is named. */
export async function packagesWith(
  trx: Transaction,
  volumes: readonly string[] | 'unproven',
): Promise<readonly PackageHere[]> {
  const query = trx('packages').select('manifest', 'first_archive')
  const rows = (await (volumes === 'unproven'
    ? query.whereNull('proof')
    : query.whereRaw('volumes && ?', [[...volumes]]))) as Row[]
  return rows.map((row) => ({
    manifest: manifestSchema.parse(row.manifest),
    firstArchive: row.first_archive,
  }))
}

/** Rows of one statement. */
const AT_ONCE = 500

/** Keeps what is proven of packages. */
export async function putProofs(trx: Transaction, proven: readonly PackageProven[]): Promise<void> {
  const rows = proven.map(({ manifest, firstArchive, proof, volumes }) => {
    const { claims, places, state } = proof
    const stored: StoredProof = { claims, places: [...places], volumes }
    return { id: manifest.id, first_archive: firstArchive, state, proof: stored }
  })
  for (let from = 0; from < rows.length; from += AT_ONCE)
    await trx.raw(
      `update packages set state = made.state, proof = made.proof
       from jsonb_to_recordset(?::jsonb)
         as made (id text, first_archive text, state text, proof jsonb)
       where packages.id = made.id and packages.first_archive = made.first_archive`,
      [JSON.stringify(rows.slice(from, from + AT_ONCE))],
    )
}

/** Digests of a package's volumes, as far as they are told. */
export const digestsOf = ({ manifest, firstArchive }: PackageHere): readonly string[] => [
  firstArchive,
  ...manifest.archives.slice(1).flatMap(({ sha256 }) => sha256 ?? []),
]

const columnsOf = (one: PackageHere) => ({
  id: one.manifest.id,
  first_archive: one.firstArchive,
  manifest: JSON.stringify(one.manifest),
  family: one.manifest.family,
  models: [...new Set(one.manifest.targets.map(({ model }) => model))],
  images: [...new Set(one.manifest.images.map(({ sha256 }) => sha256))],
  volumes: digestsOf(one),
})

/** Enters a package as its own archive tells it; one of the same id in another archive stays beside it. */
export async function putPackage(trx: Transaction, one: PackageHere): Promise<void> {
  await trx('packages').insert(columnsOf(one)).onConflict(['id', 'first_archive']).merge()
}

/** Enters what a catalogue tells of; what stands here already keeps its own manifest. */
export async function putKnown(
  trx: Transaction,
  packages: readonly PackageHere[],
  catalogue: number,
): Promise<void> {
  for (let from = 0; from < packages.length; from += AT_ONCE)
    await trx('packages')
      .insert(packages.slice(from, from + AT_ONCE).map((one) => ({ ...columnsOf(one), catalogue })))
      .onConflict(['id', 'first_archive'])
      .merge(['catalogue'])
}

/** What only an older catalogue of a depot told of is no longer known by it; answers how many went. */
export async function dropUnlisted(
  trx: Transaction,
  depot: string,
  catalogue: number,
): Promise<number> {
  const older = trx('catalogues').where({ depot }).whereNot({ id: catalogue }).select('id')
  const unlisted = trx('packages').whereIn('catalogue', older)
  await unlisted
    .clone()
    .whereExists((there) =>
      there.from('archives').whereRaw('archives.sha256 = packages.first_archive'),
    )
    .update({ catalogue: null })
  return unlisted.delete()
}

/** Builds that any package is of, by family. */
export async function buildsKnown(db: Database): Promise<ReadonlyMap<string, readonly string[]>> {
  const rows = (await shown(db)
    .select('family', db.raw("array_agg(distinct manifest ->> 'build') as builds"))
    .groupBy('family')) as { readonly family: string; readonly builds: readonly string[] }[]
  return new Map(rows.map(({ family, builds }) => [family, builds]))
}
