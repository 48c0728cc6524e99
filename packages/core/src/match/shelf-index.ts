/**
 * A shelf by what rules look for in it, kept: every package of it is judged on the same one. Reads a shelf; gives
 * full packages by build, and those that raise a loader, the lowest first.
 */
import type { Shelved } from '../firmware/manifest.ts'

type Index = {
  readonly fullByBuild: ReadonlyMap<string, readonly Shelved[]>
  readonly loaders: readonly Shelved[]
  readonly byKey: ReadonlyMap<string, Shelved>
}
const kept = new WeakMap<readonly Shelved[], Index>()

function indexOf(shelf: readonly Shelved[]): Index {
  const known = kept.get(shelf)
  if (known !== undefined) return known
  const fullByBuild = new Map<string, Shelved[]>()
  for (const one of shelf) {
    if (one.manifest.kind !== 'full') continue
    const alike = fullByBuild.get(one.manifest.build)
    if (alike === undefined) fullByBuild.set(one.manifest.build, [one])
    else alike.push(one)
  }
  const version = ({ manifest }: Shelved) => manifest.loaderVersion ?? 0
  const loaders = shelf
    .filter(
      ({ manifest: { kind, images, loaderVersion } }) =>
        kind === 'part' &&
        loaderVersion !== undefined &&
        images.every(({ role }) => role === 'loader'),
    )
    .sort((a, b) => version(a) - version(b) || a.key.localeCompare(b.key))
  const made = { fullByBuild, loaders, byKey: new Map(shelf.map((one) => [one.key, one])) }
  kept.set(shelf, made)
  return made
}

/** Full packages of a build. */
export const fullOf = (shelf: readonly Shelved[], build: unknown): readonly Shelved[] =>
  indexOf(shelf).fullByBuild.get(String(build)) ?? []

/** Packages by their keys. */
export const byKey = (shelf: readonly Shelved[]): ReadonlyMap<string, Shelved> =>
  indexOf(shelf).byKey

/** Packages that are a loader and nothing else, the lowest version first. */
export const loadersOf = (shelf: readonly Shelved[]): readonly Shelved[] => indexOf(shelf).loaders
