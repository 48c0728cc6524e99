/**
 * What stands on a device, part by part: of which builds each partition is whose own digest was read, and whether the
 * parts that are signed together are of one. Reads the family, the device's digests and every manifest that is known;
 * gives a row a partition that was read, in device order. A digest that is nobody's image is of no build that is known
 * here: modified, half written, or of a build that nobody has. `runs`: of a device with two slots the one that runs.
 */
import { isNeverWritten } from '../family/never.ts'
import { isCarried } from '../firmware/carried.ts'
import { placesOf, slotOf } from '../family/layout.ts'
import type { Family } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { PartRole, Slot } from '../terms/device.ts'
import type { Evidence } from './least-write.ts'

export type PartOn = {
  readonly partition: string
  readonly role: PartRole
  /** Builds that it may be of, in the order in which they are known; empty: none that is known. */
  readonly builds: readonly string[]
}

export type PartsOn = {
  readonly parts: readonly PartOn[]
  /** Of one build: that; of several at once: null; of fewer than two parts nobody can tell: undefined. */
  readonly set: string | null | undefined
}

export function partsOn(
  family: Family,
  evidence: ReadonlyMap<string, Evidence>,
  manifests: readonly Pick<Manifest, 'build' | 'images' | 'carried'>[],
  runs?: Slot,
): PartsOn {
  const known = buildsOf(family, manifests)
  const parts = family.partitions.flatMap(({ name, role }): readonly PartOn[] => {
    const found = evidence.get(name)
    if (found?.kind !== 'digest' || isNeverWritten(family, role)) return []
    return [{ partition: name, role, builds: known.get(`${name} ${found.sha256}`) ?? [] }]
  })
  return { parts, set: setOf(family, parts, runs) }
}

/** Builds by the place and the digest of their images. */
function buildsOf(
  family: Family,
  manifests: readonly Pick<Manifest, 'build' | 'images' | 'carried'>[],
): ReadonlyMap<string, readonly string[]> {
  const known = new Map<string, Set<string>>()
  const put = (key: string, build: string) =>
    known.set(key, (known.get(key) ?? new Set()).add(build))
  for (const { build, images, carried } of manifests)
    for (const image of images.filter(({ sha256 }) => !isCarried({ carried }, sha256)))
      for (const { name } of placesOf(family, image)) put(`${name} ${image.sha256}`, build)
  return new Map([...known].map(([key, builds]) => [key, [...builds]]))
}

/** Of two slots only the one that runs is asked; which that is must be known. */
function setOf(family: Family, parts: readonly PartOn[], runs: Slot | undefined): PartsOn['set'] {
  const [first, ...others] = parts.filter(({ partition, role, builds }) => {
    const slot = slotOf(family, partition)
    const its = slot === undefined || slot === runs
    return its && family.signedSet.includes(role) && builds.length > 0
  })
  if (first === undefined || others.length === 0) return undefined
  const common = first.builds.filter((build) =>
    others.every(({ builds }) => builds.includes(build)),
  )
  return common[0] ?? null
}
