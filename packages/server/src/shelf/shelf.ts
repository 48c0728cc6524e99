/** The shelf as it is judged by: every package with its proof. */
import type { PackageRow } from '@plain-slate/api'
import type { Manifest, Proof, Shelved } from '@plain-slate/core'
import { prove } from '@plain-slate/core'
import type { Database } from '../tables/database.ts'
import { listPackages, listWhole } from '../tables/shelf.ts'

export type ProvenPackage = { readonly manifest: Manifest; readonly proof: Proof }

/** Every package, proven anew from what was read of the archives. */
export async function provenPackages(db: Database): Promise<ProvenPackage[]> {
  const packages = await listPackages(db)
  const archives = await listWhole(db)
  return packages.map(({ manifest, firstArchive }) => ({
    manifest,
    proof: prove(manifest, firstArchive, archives),
  }))
}

/** As rules take it. */
export const shelvedOf = ({ manifest, proof }: ProvenPackage): Shelved => ({
  manifest,
  state: proof.state,
})

/** A package as a list shows it. */
export function rowOf({ manifest, proof }: ProvenPackage): PackageRow {
  const { id, title, family, kind, channel, build, release, patchDate, targets, images } = manifest
  return {
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
