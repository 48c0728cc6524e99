/**
 * What a device is of where it cannot say it itself: the build and the release that it reports, or, of one that does
 * not start, those of the main part that stands on it by its own digest. Other people's wrecks become a known state so.
 * Reads a case; gives build and release, each undefined where nobody can tell.
 */
import { settled } from '../device/identity.ts'
import type { Shelved } from '../firmware/manifest.ts'
import type { Unheld } from './rule.ts'

export type Stands = { readonly build: string | undefined; readonly release: number | undefined }

export function standsOn(at: Unheld): Stands {
  const build = settled(at.identity, 'build')
  const release = settled(at.identity, 'release')
  if (build !== undefined || release !== undefined)
    return {
      build: build === undefined ? undefined : String(build),
      release: release === undefined ? undefined : Number(release),
    }
  return byDigest(at)
}

const kept = new WeakMap<Unheld['evidence'], WeakMap<readonly Shelved[], Stands>>()

/** Made once for what was read and a shelf: a whole shelf is put in order by it. */
function byDigest(at: Unheld): Stands {
  const mine = kept.get(at.evidence) ?? new WeakMap<readonly Shelved[], Stands>()
  kept.set(at.evidence, mine)
  const known = mine.get(at.shelf) ?? mainOn(at)
  mine.set(at.shelf, known)
  return known
}

/** Of one build and no other: an image that several builds share tells of none. */
function mainOn({ family, evidence, shelf, identity }: Unheld): Stands {
  const runs = settled(identity, 'slot')
  const places = family.partitions.filter(
    ({ role, slot }) => role === 'main' && (slot === undefined || slot === runs),
  )
  const digests = places.flatMap(({ name }) => {
    const found = evidence.get(name)
    return found?.kind === 'digest' ? [found.sha256] : []
  })
  const of = shelf.filter(({ manifest }) =>
    manifest.images.some(({ role, sha256 }) => role === 'main' && digests.includes(sha256)),
  )
  const [build, ...others] = new Set(of.map(({ manifest }) => manifest.build))
  const release = of[0]?.manifest.release
  return others.length > 0 ? NOBODY_KNOWS : { build, release }
}
const NOBODY_KNOWS: Stands = { build: undefined, release: undefined }
