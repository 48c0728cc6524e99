/**
 * What is proven of a package: each thing it claims held against the archives that are here, and each
 * archive against the digests that came from outside it. Reads a manifest, what was read of archives and
 * what others say of them; gives claims with their evidence, the package's state, and where the bytes of
 * each image lie. An archive's name is a label: volumes are known by their digest. A manifest vouches for
 * nothing: what it says of its own volumes makes a package whole, never published.
 */
import type { Image, Manifest, OutsideSource, PackageState, Vouched } from './manifest.ts'
import { OUTSIDE } from './manifest.ts'

/** A digest of an archive that did not come out of it: who says so, where it stands, when it was entered. */
export type OutsideDigest = {
  readonly sha256: string
  readonly source: OutsideSource
  readonly where: string
  readonly at: string
}

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
  /** Entries that were refused: the package is never whole. */
  readonly refusedEntries: number
  /** What others say of it, in the order in which it was entered. */
  readonly outside: readonly OutsideDigest[]
}

export type Held = 'holds' | 'missing' | 'contradicted'
export type ProofClaim =
  /** A volume is here; one that is listed with a digest is that one. */
  | { readonly claim: 'volume'; readonly file: string; readonly held: Held; readonly found: string }
  /** A volume's digest as its own manifest tells it: `own`. As somebody outside does: `published`. */
  | {
      readonly claim: 'own'
      readonly file: string
      readonly held: Held
      readonly found: string
      readonly wanted: string
    }
  | {
      readonly claim: 'published'
      readonly file: string
      readonly held: Held
      readonly found: string
      /** Undefined: nobody outside says anything of it. */
      readonly wanted: string | undefined
      readonly source: OutsideSource | undefined
      readonly where: string
      readonly at: string
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
  readonly state: PackageState
  /** By the image's SHA-256. */
  readonly places: ReadonlyMap<string, ImagePlace>
}

/** Whose word a proven package rests on: of every volume the strongest, of all of them the weakest. */
export function vouchedOf({ claims, state }: Pick<Proof, 'claims' | 'state'>): Vouched | undefined {
  if (state !== 'published') return undefined
  const words = claims.flatMap((one) =>
    one.claim === 'published' && one.held === 'holds' && one.source !== undefined
      ? [{ file: one.file, by: one.source, date: one.at.slice(0, DAY_CHARS) }]
      : [],
  )
  const rank = ({ by }: Vouched) => OUTSIDE.indexOf(by)
  const strongest = [...new Set(words.map(({ file }) => file))].flatMap((file) =>
    words
      .filter((one) => one.file === file)
      .sort((a, b) => rank(a) - rank(b))
      .slice(0, 1),
  )
  const [weakest] = strongest.sort((a, b) => rank(b) - rank(a) || (a.date < b.date ? -1 : 1))
  return weakest && { by: weakest.by, date: weakest.date }
}
/** Of an ISO moment, its day. */
const DAY_CHARS = 10

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
  /* An archive that lacks what its manifest lists is not made whole by anything that is still to come. */
  const lacks = manifest.images.some((image) => {
    const volume = volumeOf(volumes, image)
    return volume !== undefined && !volume.entries.some(({ name }) => name === image.file)
  })
  const state = lacks ? 'refuted' : stateOf(claims)
  return { claims, state, places: placesOf(manifest, volumes) }
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
  const own = (digest: string): ProofClaim => ({
    claim: 'own',
    file,
    held: digest === found ? 'holds' : 'contradicted',
    found,
    wanted: digest,
  })
  return [
    { claim: 'volume', file, held: 'holds', found },
    ...(wanted === undefined ? [] : [own(wanted)]),
    ...publishedClaims(file, here),
    ...(refusedEntries === 0
      ? []
      : [{ claim: 'entries', file, held: 'contradicted', found: String(refusedEntries) } as const]),
  ]
}

/** What others say of a volume: the newest word of each kind of source stands, an older one is mended. */
function publishedClaims(file: string, { sha256: found, outside }: ReadArchive): ProofClaim[] {
  const newest = new Map(outside.map((one) => [one.source, one]))
  if (newest.size === 0)
    return [
      {
        claim: 'published',
        file,
        held: 'missing',
        found,
        wanted: undefined,
        source: undefined,
        where: '',
        at: '',
      },
    ]
  return [...newest.values()].map(({ sha256: wanted, source, where, at }) => ({
    claim: 'published',
    file,
    held: wanted === found ? 'holds' : 'contradicted',
    found,
    wanted,
    source,
    where,
    at,
  }))
}

function imageClaim(image: Image, volume: ReadArchive | undefined): ProofClaim {
  const { file, partition, sha256: wanted } = image
  const about = { claim: 'image', file, partition, wanted } as const
  const entry = volume?.entries.find(({ name }) => name === file)
  if (entry === undefined) return { ...about, held: 'missing', found: '' }
  const whole = entry.sha256 === wanted && entry.size === image.storedSize
  return { ...about, held: whole ? 'holds' : 'contradicted', found: entry.sha256 }
}

/** One contradiction refutes; one thing missing of its own leaves it known; what others say publishes. */
function stateOf(claims: readonly ProofClaim[]): PackageState {
  if (claims.some(({ held }) => held === 'contradicted')) return 'refuted'
  const missing = claims.filter(({ held }) => held === 'missing')
  if (missing.some(({ claim }) => claim !== 'published')) return 'known'
  return missing.length === 0 ? 'published' : 'whole'
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
