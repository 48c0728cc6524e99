/**
 * A shelf by what rules look for in it, kept: every package of it is judged on the same one. Reads a shelf; gives
 * full packages by build, and those that raise a loader, the lowest first.
 */
import type { Manifest, Shelved } from '../firmware/manifest.ts'

/** The highest release and the latest patch date that are known of a model, each with the package that bears it. */
type Newest = { readonly release: Manifest; readonly patchDate: Manifest }
type Index = {
  readonly newest: ReadonlyMap<string, Newest>
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
    /* With an owner's image in it, it is not what its maker made of that build. */
    if (one.manifest.kind !== 'full' || one.manifest.carried !== undefined) continue
    const alike = fullByBuild.get(one.manifest.build)
    if (alike === undefined) fullByBuild.set(one.manifest.build, [one])
    else alike.push(one)
  }
  const newest = new Map<string, Newest>()
  for (const { manifest } of shelf)
    for (const { model } of manifest.targets) {
      const key = ofModel(manifest.family, model)
      const { release, patchDate } = newest.get(key) ?? { release: manifest, patchDate: manifest }
      newest.set(key, {
        release: release.release < manifest.release ? manifest : release,
        patchDate: patchDate.patchDate < manifest.patchDate ? manifest : patchDate,
      })
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
  const made = { newest, fullByBuild, loaders, byKey: new Map(shelf.map((one) => [one.key, one])) }
  kept.set(shelf, made)
  return made
}

const ofModel = (family: string, model: string): string => `${family} ${model}`

/** The packages of the highest release and of the latest patch date that a shelf knows of a model; undefined: none. */
export const newestOf = (
  shelf: readonly Shelved[],
  family: string,
  model: string,
): Newest | undefined => indexOf(shelf).newest.get(ofModel(family, model))

/** Full packages of a build. */
export const fullOf = (shelf: readonly Shelved[], build: unknown): readonly Shelved[] =>
  indexOf(shelf).fullByBuild.get(String(build)) ?? []

/**
 * Full packages of a build for devices that another package is for as well: of its family, for a model and a board that it
 * names. One name stands for many builds over models and families. Where somebody outside vouches for one, what nobody vouches
 * for is none of them; what is refuted never is.
 */
export function fullForSame(
  shelf: readonly Shelved[],
  manifest: Pick<Manifest, 'family' | 'targets'>,
  build: unknown,
): readonly Shelved[] {
  const own = fullOf(shelf, build).filter(
    (one) =>
      one.state !== 'refuted' &&
      one.manifest.family === manifest.family &&
      one.manifest.targets.some((target) => manifest.targets.some((other) => meet(target, other))),
  )
  const vouched = own.filter(({ state }) => state === 'published')
  return vouched.length > 0 ? vouched : own
}
type Target = Manifest['targets'][number]
const meet = (one: Target, other: Target): boolean =>
  one.model === other.model && one.boards.some((board) => other.boards.includes(board))

/** Packages by their keys. */
export const byKey = (shelf: readonly Shelved[]): ReadonlyMap<string, Shelved> =>
  indexOf(shelf).byKey

/** Packages that are a loader and nothing else, the lowest version first. */
export const loadersOf = (shelf: readonly Shelved[]): readonly Shelved[] => indexOf(shelf).loaders
