/**
 * Proofs of packages, made when a volume of one changes and kept beside it: who asks for a package reads what stands
 * there. Called in the transaction that changed the volumes, as its last act.
 */
import { prove } from '@plain-slate/core'
import type { Database, Transaction } from '../tables/database.ts'
import type { PackageHere, PackageProven } from '../tables/packages.ts'
import { digestsOf, lockProofs, packagesWith, putProofs } from '../tables/packages.ts'
import { listVolumes } from '../tables/shelf.ts'

/** Proves anew every package of which one of these archives is a volume. */
export async function proveConcerned(
  trx: Transaction,
  archives: readonly string[] | 'unproven',
): Promise<void> {
  await lockProofs(trx)
  const packages = await packagesWith(trx, archives)
  if (packages.length === 0) return
  await putProofs(trx, await provenOf(trx, packages))
}

/** What was never proven, as after a change of the tables. */
export const proveUnproven = (db: Database): Promise<void> =>
  db.transaction((trx) => proveConcerned(trx, 'unproven'))

/** Packages with their proofs, from what was read of the archives that their manifests name. */
export async function provenOf(
  db: Database,
  packages: readonly PackageHere[],
): Promise<readonly PackageProven[]> {
  const digests = new Set(packages.flatMap(digestsOf))
  const files = new Set(packages.flatMap(({ manifest }) => manifest.images.map(({ file }) => file)))
  const volumes = await listVolumes(db, [...digests], [...files])
  const by = new Map(volumes.map((one) => [one.sha256, one]))
  return packages.map((one) => {
    const own = digestsOf(one).flatMap((sha256) => by.get(sha256) ?? [])
    return {
      ...one,
      proof: prove(one.manifest, one.firstArchive, own),
      volumes: own.map(({ name, sha256, bytes, stamps }) => ({ name, sha256, bytes, stamps })),
    }
  })
}
