/**
 * Whether a package's loader need not go on: the one that is there is newer, or, where only one is kept, the same or one that
 * starts the package as it is. A slot's own loader goes with its system. Reads a family, a package and the version on the device;
 * gives why it stays, or nothing.
 */
import type { Family } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'

/** Why it stays: what would come is older; the same; newer, and not asked for. */
export type LoaderStays = 'older' | 'same' | 'enough'

export function loaderStays(
  family: Pick<Family, 'keptOnce' | 'partitions'>,
  { images, loaderVersion, requires }: Manifest,
  here: number,
): LoaderStays | undefined {
  const alone = images.every(({ role }) => role === 'loader')
  const none = images.every(({ role }) => role !== 'loader')
  if (alone || none || loaderVersion === undefined || hasSlottedLoader(family)) return undefined
  if (loaderVersion < here) return 'older'
  if (!family.keptOnce.includes('loader')) return undefined
  if (loaderVersion === here) return 'same'
  return here >= (requires.minLoader ?? Infinity) ? 'enough' : undefined
}

/** Each slot of the family has a loader of its own. */
export const hasSlottedLoader = ({ partitions }: Pick<Family, 'partitions'>): boolean =>
  partitions.some(({ role, slot }) => role === 'loader' && slot !== undefined)

/** The version of the loader that a package writes; undefined: it writes none, or does not say which. */
export const loaderIn = ({
  images,
  loaderVersion,
}: Pick<Manifest, 'images' | 'loaderVersion'>): number | undefined =>
  images.some(({ role }) => role === 'loader') ? loaderVersion : undefined
