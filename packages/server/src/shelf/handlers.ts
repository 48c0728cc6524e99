/** Handlers of the shelf. */
import { shownName } from '@plain-slate/archives'
import type { Contract } from '@plain-slate/api'
import { SHELF_PAGE } from '@plain-slate/api'
import type { ProofClaim } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import type { Handler } from '../edge/mount.ts'
import type { Workshop } from '../base/workshop.ts'
import { listCatalogues } from '../tables/catalogues.ts'
import { listPackages } from '../tables/packages.ts'
import { listArchives, listEntries, wholeArchives } from '../tables/shelf.ts'
import { publishArchive, readArchiveAgain, removeArchive, restoreArchive } from './acts.ts'
import type { ProvenPackage } from './shelf.ts'
import { keyed, namedOnShelf, packageMeant, rowOf } from './shelf.ts'
import { takeIn } from './take-in.ts'
import { CATALOGUE_BYTES_MAX, takeCatalogue } from './catalogue.ts'
import { bytesOf } from './bytes-of.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

/** Entries on one page. */
const PAGE = 200
const NO_PACKAGES = { known: 0, whole: 0, published: 0, refuted: 0 }

/** What is known of packages, and how more comes to be known. */
function packageHandlers(workshop: Workshop) {
  const { db } = workshop
  const shelf: Of<'shelf'> = async ({ query }) => {
    const { packages, states } = await listPackages(db, { ...query, limit: SHELF_PAGE })
    return ok({
      packages: keyed(packages).map(rowOf),
      states: { ...NO_PACKAGES, ...states },
      archives: await listArchives(db),
      catalogues: [...(await listCatalogues(db))],
    })
  }
  const catalogueTake: Of<'catalogueTake'> = async ({ actor, req }) => {
    const bytes = await bytesOf(req, CATALOGUE_BYTES_MAX)
    return bytes === undefined
      ? refuse({ code: 'catalogue.length', facts: { mib: CATALOGUE_BYTES_MAX / 1024 ** 2 } })
      : takeCatalogue(workshop, { bytes, by: actor?.id ?? null })
  }
  const shelfPackage: Of<'shelfPackage'> = async ({ params: { id } }) => {
    const meant = packageMeant(await namedOnShelf(db, [id]), id)
    if (!meant.ok) return meant
    const { value } = meant
    const volumes = volumesOf(value)
    const archives = await wholeArchives(
      db,
      volumes.map(({ sha256 }) => sha256),
    )
    return ok({
      ...rowOf(value),
      claims: value.proof.claims.map(claimShown),
      volumes: volumes.map((one) => ({ ...one, archive: archives.get(one.sha256) ?? '' })),
    })
  }
  return { shelf, shelfPackage, catalogueTake }
}

/** Uploads are streams and end in a job; everything else here answers at once. */
export function shelfHandlers(workshop: Workshop) {
  const shelve: Of<'shelve'> = ({ query: { name, sha256, source, where }, actor, req }) =>
    takeIn(workshop, {
      name,
      bytes: Number(req.headers['content-length'] ?? 0),
      source: req,
      published: sha256 === undefined ? undefined : { sha256, source, where },
      by: actor?.id ?? null,
    })
  const archiveEntries: Of<'archiveEntries'> = async ({ params: { id }, query }) => {
    const { after, only } = query
    const page = { archive: id, after, refused: only === 'refused', limit: PAGE + 1 }
    const found = await listEntries(workshop.db, page)
    const entries = found.slice(0, PAGE).map((one) => ({ ...one, name: shownName(one.name) }))
    return ok({ entries, more: found.length > PAGE })
  }
  const archiveRemove: Of<'archiveRemove'> = ({ params: { id }, actor }) =>
    removeArchive(workshop, { id, by: actor?.id ?? null })
  const archiveRestore: Of<'archiveRestore'> = ({ params: { id }, actor }) =>
    restoreArchive(workshop, { id, by: actor?.id ?? null })
  const archiveReadAgain: Of<'archiveReadAgain'> = ({ params: { id } }) =>
    readArchiveAgain(workshop, id)
  const archivePublished: Of<'archivePublished'> = ({ params: { id }, body, actor }) =>
    publishArchive(workshop, { id, by: actor?.id ?? null }, body)
  return {
    ...packageHandlers(workshop),
    shelve,
    archiveEntries,
    archiveRemove,
    archiveRestore,
    archiveReadAgain,
    archivePublished,
  }
}

/** Volumes that are here, by the name its manifest gives each. */
const volumesOf = ({ proof }: ProvenPackage) =>
  proof.claims.flatMap((claim) =>
    claim.claim === 'volume' && claim.held === 'holds'
      ? [{ file: claim.file, sha256: claim.found }]
      : [],
  )

/** A claim without what is not told of it. */
function claimShown(claim: ProofClaim) {
  if (claim.claim !== 'published') return { ...claim }
  const { wanted, source, ...rest } = claim
  return {
    ...rest,
    ...(wanted === undefined ? {} : { wanted }),
    ...(source === undefined ? {} : { source }),
  }
}
