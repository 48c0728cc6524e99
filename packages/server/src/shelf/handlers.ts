/** Handlers of the shelf. */
import { shownName } from '@plain-slate/archives'
import type { Contract } from '@plain-slate/api'
import type { ProofClaim } from '@plain-slate/core'
import { ok } from '@plain-slate/core'
import type { Handler } from '../edge/mount.ts'
import type { Workshop } from '../base/workshop.ts'
import { listArchives, listEntries, wholeArchives } from '../tables/shelf.ts'
import { publishArchive, readArchiveAgain, removeArchive, restoreArchive } from './acts.ts'
import type { ProvenPackage } from './shelf.ts'
import { packageMeant, provenPackages, rowOf } from './shelf.ts'
import { takeIn } from './take-in.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

/** Entries on one page. */
const PAGE = 200

/** Uploads are streams and end in a job; everything else here answers at once. */
export function shelfHandlers(workshop: Workshop) {
  const shelf: Of<'shelf'> = async () => {
    const [packages, archives] = await Promise.all([
      provenPackages(workshop.db),
      listArchives(workshop.db),
    ])
    return ok({ packages: packages.map(rowOf), archives })
  }
  const shelfPackage: Of<'shelfPackage'> = async ({ params: { id } }) => {
    const meant = packageMeant(await provenPackages(workshop.db), id)
    if (!meant.ok) return meant
    const { value } = meant
    const volumes = volumesOf(value)
    const archives = await wholeArchives(
      workshop.db,
      volumes.map(({ sha256 }) => sha256),
    )
    return ok({
      ...rowOf(value),
      claims: value.proof.claims.map(claimShown),
      volumes: volumes.map((one) => ({ ...one, archive: archives.get(one.sha256) ?? '' })),
    })
  }
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
    shelf,
    shelfPackage,
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
