/**
 * Whether a package's loader need not go on: the one that is there is newer, or, where only one is kept, starts the
 * package as it is. Reads a family, a package and the version on the device; gives why it stays, or nothing.
 */
import type { Family } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'

export function loaderStays(
  { keptOnce }: Pick<Family, 'keptOnce'>,
  { images, loaderVersion, requires }: Manifest,
  here: number,
): 'older' | 'enough' | undefined {
  const alone = images.every(({ role }) => role === 'loader')
  if (alone || loaderVersion === undefined) return undefined
  if (loaderVersion < here) return 'older'
  const starts = here >= (requires.minLoader ?? Infinity)
  return keptOnce.includes('loader') && loaderVersion > here && starts ? 'enough' : undefined
}
