/**
 * The device's own digests, one a partition. Packages of one family have images of several sizes, so that a partition
 * may have been digested over several ranges: the one that is an image somebody knows tells what stands there.
 */
import type { LookFound } from '@plain-slate/api'
import type { Family, Manifest } from '@plain-slate/core'
import { placesOf } from '@plain-slate/core'
import type { ProvenPackage } from '../shelf/shelf.ts'

export function ownDigests(
  found: LookFound['digests'],
  shelf: readonly Pick<ProvenPackage, 'manifest'>[],
): ReadonlyMap<string, string> {
  const known = new Set(
    shelf.flatMap(({ manifest }) => manifest.images.map(({ sha256, size }) => `${size} ${sha256}`)),
  )
  const own = new Map<string, string>()
  const told = new Set<string>()
  for (const { partition, size, sha256 } of found) {
    const isImage = known.has(`${size} ${sha256}`)
    if (told.has(partition) && !isImage) continue
    own.set(partition, sha256)
    if (isImage) told.add(partition)
  }
  return own
}

/**
 * The ranges where these packages' images may stand, of both slots where there are two. Lines of one family have images
 * of several sizes: each is a range of its own.
 */
export function rangesOf(family: Family, manifests: readonly Pick<Manifest, 'images'>[]) {
  const ranges = manifests.flatMap(({ images }) =>
    images.flatMap((image) =>
      placesOf(family, image).map(({ name }) => ({ partition: name, size: image.size })),
    ),
  )
  return [...new Map(ranges.map((one) => [`${one.partition} ${one.size}`, one])).values()]
}
