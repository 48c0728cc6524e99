/** The demo's packages at any scale, with the bytes of every image at hand. */
import type { Family, Shelved } from '@plain-slate/core'
import { catalogueOf } from '@plain-slate/core'
import type { DemoDevice, Origin, PackageDraft, Volume } from '@plain-slate/demo'
import {
  DEMO_DEVICES,
  DEMO_PACKAGES,
  ON_DEVICES_ONLY,
  buildPackage,
  bytesOf,
  digestOfVolume,
  familyNamed,
  modifiedFacts,
  originOf,
} from '@plain-slate/demo'
import type { ImageBytes } from '@plain-slate/link'

export type Drafts = {
  /** Of packages that are on the shelf, and of what stands on devices alone. */
  readonly here: readonly PackageDraft[]
  readonly known: readonly PackageDraft[]
  readonly devices: readonly DemoDevice[]
}

/** The demo's packages of a family at a scale. */
export function shelfAt(scale: number, id = 'tarn') {
  const isMine = ({ line }: { readonly line: { readonly family: string } }) => line.family === id
  return shelfOf(familyNamed(id), scale, {
    here: DEMO_PACKAGES.filter(isMine),
    known: ON_DEVICES_ONLY.filter(isMine),
    devices: DEMO_DEVICES.filter(isMine),
  })
}

/** Packages at a scale, and where the bytes of every image come from. */
export function shelfOf(family: Family, scale: number, drafts: Drafts) {
  const volumes = new Map<string, Volume>()
  const built = (drafts: readonly PackageDraft[]) =>
    drafts.map((draft) => {
      const { manifest, volumes: own } = buildPackage(draft, scale)
      const [first, ...later] = own
      if (first === undefined || later.length > 0) return { draft, manifest }
      const sha256 = digestOfVolume(first)
      volumes.set(sha256, first)
      const archives = [{ file: first.file, sha256, bytes: first.bytes }]
      return { draft, manifest: { ...manifest, archives } }
    })
  const here = built(drafts.here.filter(({ truncatedTo }) => truncatedTo === undefined))
  const known = [...here, ...built(drafts.known)]
  const origins = new Map<string, Origin>(
    known.flatMap(({ draft, manifest }) =>
      manifest.images.map(({ sha256, role }): [string, Origin] => [
        sha256,
        originOf(draft.line, role, draft.build, draft.more.loaderVersion),
      ]),
    ),
  )
  const manifests = here.map(({ manifest }) => manifest)
  const bytes: ImageBytes = async function* (image, from, to) {
    await Promise.resolve()
    const volume = volumes.get(image)
    if (volume !== undefined) return void (yield* rangeOf(volume, from, to))
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
  const signed = catalogueOf(known.map((one) => one.manifest))
  const own = modifiedFacts(drafts.devices, signed, scale)
  const catalogue = new Map([...signed, ...own.map((facts) => [facts.image, facts] as const)])
  return { family, scale, shelf, bytes, origins, catalogue }
}

/** A range of a volume. */
function* rangeOf(volume: Volume, from: number, to: number): Generator<Uint8Array> {
  let at = 0
  for (const chunk of volume.chunks()) {
    const [a, b] = [Math.max(from - at, 0), Math.min(to - at, chunk.length)]
    if (a < b) yield chunk.subarray(a, b)
    at += chunk.length
    if (at >= to) return
  }
}

export type ShelfAt = ReturnType<typeof shelfOf>
