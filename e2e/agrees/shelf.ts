/** The demo's packages at any scale, with the bytes of every image at hand. */
import type { Shelved } from '@plain-slate/core'
import { catalogueOf } from '@plain-slate/core'
import type { Origin, PackageDraft } from '@plain-slate/demo'
import {
  ON_DEVICES_ONLY,
  TARN_PACKAGES,
  buildPackage,
  bytesOf,
  originOf,
  tarnFamily,
} from '@plain-slate/demo'
import type { ImageBytes } from '@plain-slate/link'

export const family = tarnFamily()
/** Packages at a scale, and where the bytes of every image come from. */
export function shelfAt(scale: number) {
  const built = (drafts: readonly PackageDraft[]) =>
    drafts.map((draft) => ({ draft, manifest: buildPackage(draft, scale).manifest }))
  const here = built(TARN_PACKAGES.filter(({ truncatedTo }) => truncatedTo === undefined))
  const known = [...here, ...built(ON_DEVICES_ONLY)]
  const origins = new Map<string, Origin>(
    known.flatMap(({ draft, manifest }) =>
      manifest.images.map(({ sha256, role }): [string, Origin] => [
        sha256,
        originOf(role, draft.build, draft.more.loaderVersion),
      ]),
    ),
  )
  const manifests = here.map(({ manifest }) => manifest)
  const bytes: ImageBytes = async function* (image, from, to) {
    await Promise.resolve()
    const origin = origins.get(image)
    if (origin === undefined) throw new Error(`no bytes of ${image}`)
    for (let at = from; at < to; at += 1 << 20)
      yield bytesOf(origin, at, Math.min(to, at + (1 << 20)))
  }
  const shelf = manifests.map((manifest): Shelved => ({
    key: manifest.id,
    manifest,
    state: 'published',
  }))
  return { scale, shelf, bytes, origins, catalogue: catalogueOf(known.map((one) => one.manifest)) }
}
export type ShelfAt = ReturnType<typeof shelfAt>
