/**
 * Whether a package's loader need not go on: the one that is there is newer, or, where only one is kept, starts the
 * package as it is. A slot's own loader goes with its system. Reads a family, a package and the version on the device;
 * gives why it stays, or nothing.
 */
import type { Family } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'

export function loaderStays(
  family: Pick<Family, 'keptOnce' | 'partitions'>,
  { images, loaderVersion, requires }: Manifest,
  here: number,
): 'older' | 'enough' | undefined {
  const alone = images.every(({ role }) => role === 'loader')
  if (alone || loaderVersion === undefined || hasSlottedLoader(family)) return undefined
  if (loaderVersion < here) return 'older'
  const starts = here >= (requires.minLoader ?? Infinity)
  return family.keptOnce.includes('loader') && loaderVersion > here && starts ? 'enough' : undefined
}

/** Each slot of the family has a loader of its own. */
export const hasSlottedLoader = ({ partitions }: Pick<Family, 'partitions'>): boolean =>
  partitions.some(({ role, slot }) => role === 'loader' && slot !== undefined)
