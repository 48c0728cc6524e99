/**
 * What is proven of a package: each thing it claims held against the archives that are here. Reads a
 * manifest and what was read of archives; gives claims with their evidence, the package's state, and
 * where the bytes of each image lie. An archive's name is a label: volumes are known by their digest.
 */
import type { Image, Manifest, Shelved } from './manifest.ts'

/** An archive that was read whole. Offsets are of the entry's first byte. */
export type ReadArchive = {
  readonly name: string
  readonly sha256: string
  readonly entries: readonly {
    readonly name: string
    readonly offset: number
    readonly size: number
    readonly sha256: string
  }[]
  /** Entries that were refused: the package is never proven. */
  readonly refusedEntries: number
}

export type Held = 'holds' | 'missing' | 'contradicted'
export type ProofClaim =
  /** A volume is here; one that is listed with a digest is that one. */
  | { readonly claim: 'volume'; readonly file: string; readonly held: Held; readonly found: string }
  | {
      readonly claim: 'published'
      readonly file: string
      readonly held: Held
      readonly found: string
      readonly wanted: string
    }
  | {
      readonly claim: 'image'
      readonly file: string
      readonly partition: string
      readonly held: Held
      readonly found: string
      readonly wanted: string
    }
  | {
      readonly claim: 'entries'
      readonly file: string
      readonly held: Held
      readonly found: string
    }

/** Where an image's bytes lie: a range of an archive. */
export type ImagePlace = {
  readonly archive: string
  readonly offset: number
  readonly size: number
}

export type Proof = {
  readonly claims: readonly ProofClaim[]
  readonly state: Shelved['state']
  /** By the image's SHA-256. */
  readonly places: ReadonlyMap<string, ImagePlace>
}

/** Proves a package. `first` is the SHA-256 of the archive its manifest lay in, where that is here. */
export function prove(
  manifest: Manifest,
  first: string | undefined,
  archives: readonly ReadArchive[],
): Proof {
  const volumes = manifest.archives.map((listed, index) => ({
    listed,
    here: archives.find(({ sha256 }) => sha256 === (index === 0 ? first : listed.sha256)),
  }))
  const claims = [
    ...volumes.flatMap(({ listed, here }) => volumeClaims(manifest, listed.file, here)),
    ...manifest.images.map((image) => imageClaim(image, volumeOf(volumes, image))),
  ]
  return { claims, state: stateOf(claims), places: placesOf(manifest, volumes) }
}

type Volume = {
  readonly listed: Manifest['archives'][number]
  readonly here: ReadArchive | undefined
}

const volumeOf = (volumes: readonly Volume[], image: Image): ReadArchive | undefined =>
  volumes.find(({ listed }) => listed.file === image.archive)?.here

function volumeClaims(
  manifest: Manifest,
  file: string,
  here: ReadArchive | undefined,
): readonly ProofClaim[] {
  if (here === undefined) return [{ claim: 'volume', file, held: 'missing', found: '' }]
  const { sha256: found, refusedEntries } = here
  const wanted = manifest.published.digests[file]
  return [
    { claim: 'volume', file, held: 'holds', found },
    ...(wanted === undefined
      ? []
      : [
          {
            claim: 'published',
            file,
            held: wanted === found ? 'holds' : 'contradicted',
            found,
            wanted,
          } as const,
        ]),
    ...(refusedEntries === 0
      ? []
      : [{ claim: 'entries', file, held: 'contradicted', found: String(refusedEntries) } as const]),
  ]
}

function imageClaim(image: Image, volume: ReadArchive | undefined): ProofClaim {
  const { file, partition, sha256: wanted } = image
  const about = { claim: 'image', file, partition, wanted } as const
  if (volume === undefined) return { ...about, held: 'missing', found: '' }
  const entry = volume.entries.find(({ name }) => name === file)
  if (entry === undefined) return { ...about, held: 'contradicted', found: '' }
  const whole = entry.sha256 === wanted && entry.size === image.storedSize
  return { ...about, held: whole ? 'holds' : 'contradicted', found: entry.sha256 }
}

/** One contradiction refutes; one thing missing leaves it known. */
function stateOf(claims: readonly ProofClaim[]): Shelved['state'] {
  if (claims.some(({ held }) => held === 'contradicted')) return 'refuted'
  return claims.every(({ held }) => held === 'holds') ? 'proven' : 'known'
}

function placesOf(manifest: Manifest, volumes: readonly Volume[]): ReadonlyMap<string, ImagePlace> {
  return new Map(
    manifest.images.flatMap((image): [string, ImagePlace][] => {
      const volume = volumeOf(volumes, image)
      const entry = volume?.entries.find(({ name }) => name === image.file)
      if (volume === undefined || entry === undefined) return []
      const { offset, size } = entry
      return [[image.sha256, { archive: volume.sha256, offset, size }]]
    }),
  )
}
