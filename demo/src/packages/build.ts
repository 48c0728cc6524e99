/**
 * The package builder: made-up packages of any size, with real bytes and digests computed when they are
 * built. Reads a draft and a scale; gives the manifest and the volumes as streams. The same draft gives
 * the same bytes every time.
 */
import { tarEnd, tarHeader, tarPadding } from '@plain-slate/archives'
import type { Image, Manifest, PartRole } from '@plain-slate/core'
import type { Origin } from './content.ts'
import { digestOf, piecesOf } from './content.ts'
import { digestOfPieces, keptDigest } from './kept.ts'
import type { Line, PackageDraft } from './line.ts'
import { idOfDraft, originOf } from './line.ts'

const MIB = 1024 * 1024
const BLOCK = 4096
/** The scale of the demo: an image of 8 MiB stands for one of 2 GiB. */
export const DEMO_SCALE = 256

export type Volume = {
  readonly file: string
  readonly bytes: number
  readonly chunks: () => Iterable<Uint8Array>
  /** What its bytes hang on; one that was cut off has none. */
  readonly key?: string
}
export type BuiltPackage = { readonly manifest: Manifest; readonly volumes: readonly Volume[] }

/** Bytes of an image of a part at a scale, in whole blocks. */
export const imageBytes = (line: Line, role: PartRole, scale: number): number =>
  Math.ceil(((line.imageMib[role] ?? 1) * MIB) / scale / BLOCK) * BLOCK

const builtOf = new WeakMap<PackageDraft, Map<number, BuiltPackage>>()

/** Builds a package; whoever asks again for the same draft has the same. */
export function buildPackage(draft: PackageDraft, scale = DEMO_SCALE): BuiltPackage {
  const known = builtOf.get(draft) ?? new Map<number, BuiltPackage>()
  builtOf.set(draft, known)
  const built = known.get(scale) ?? buildAnew(draft, scale)
  known.set(scale, built)
  return built
}

function buildAnew(draft: PackageDraft, scale: number): BuiltPackage {
  const { roles, volumes } = draft
  const named = idOfDraft(draft)
  const fileOf = (index: number) =>
    volumes.length === 0 ? `${named}.tar` : `${named}-${index + 1}of${volumes.length + 1}.tar`
  const volumeOf = (role: PartRole) => volumes.findIndex((parts) => parts.includes(role)) + 1
  const images = roles.flatMap((role) => imagesOf(draft, role, fileOf(volumeOf(role)), scale))
  const later = volumes.map((_, index) => {
    const own = images.filter(({ role }) => volumeOf(role) === index + 1)
    return volume(fileOf(index + 1), filesOf(draft, own))
  })
  const archives = [
    { file: fileOf(0) },
    ...later.map((one) => ({ file: one.file, sha256: digestOfVolume(one) })),
  ]
  const manifest = manifestOf(draft, images, archives, scale)
  const inFirst = images.filter(({ role }) => volumeOf(role) === 0)
  const text = Buffer.from(JSON.stringify(manifest, undefined, 2))
  const first = volume(fileOf(0), [
    { name: 'manifest.json', bytes: text.length, chunks: () => [text] },
    ...filesOf(draft, inFirst),
    sumsOf(inFirst),
  ])
  /* A volume's bytes hang on its manifest, which has the digest of every image. */
  const whole = [first, ...later].map((one) => ({ ...one, key: `${one.file} ${text.toString()}` }))
  return {
    manifest,
    volumes: draft.truncatedTo === undefined ? whole : whole.map(truncated(draft.truncatedTo)),
  }
}

/**
 * A package as a catalogue lists it that nobody here has: its sizes follow from its line, its digests from its name and
 * stand for no bytes.
 */
export function listedPackage(draft: PackageDraft, scale = DEMO_SCALE): Manifest {
  const id = idOfDraft(draft)
  const file = `${id}.tar`
  const images = draft.roles.map((role): Image => {
    const size = imageBytes(draft.line, role, scale)
    const partition = draft.line.partitions?.[role] ?? role
    const about = { role, partition, archive: file, file: `${role}.img` }
    return {
      ...about,
      size,
      storedSize: size,
      sha256: digestOfPieces([Buffer.from(`${id} ${role}`)]),
    }
  })
  const bytes = images.reduce((sum, { size }) => sum + size, 0)
  const archives = [{ file, sha256: digestOfPieces([Buffer.from(id)]), bytes }]
  return manifestOf(draft, images, archives, scale)
}

/** An image of a role; of a variant part that comes in two forms both. */
function imagesOf(
  draft: PackageDraft,
  role: PartRole,
  archive: string,
  scale: number,
): readonly Image[] {
  const image = imageOf(draft, role, archive, scale)
  if (role !== 'variant' || draft.forms === undefined) return [image]
  const sha256 = digestOf(wipingOrigin(draft, role), image.size)
  return [
    { ...image, form: 'keeping' },
    { ...image, form: 'wiping', file: `${role}-wiping.img`, sha256 },
  ]
}

const wipingOrigin = ({ line, build }: PackageDraft, role: PartRole): Origin => ({
  ...originOf(line, role, build),
  board: `${line.key} wiping`,
})

function imageOf(draft: PackageDraft, role: PartRole, archive: string, scale: number): Image {
  const size = imageBytes(draft.line, role, scale)
  const sha256 = digestOf(originOf(draft.line, role, draft.build, draft.more.loaderVersion), size)
  const file = `${role}.img`
  const partition = draft.line.partitions?.[role] ?? role
  return { role, partition, archive, file, size, storedSize: size, sha256 }
}

function manifestOf(
  draft: PackageDraft,
  images: readonly Image[],
  archives: Manifest['archives'],
  scale: number,
): Manifest {
  const { line, build, more } = draft
  const { maker, family, targets, usual } = line
  return {
    format: 'plain-slate/manifest@1',
    id: idOfDraft(draft),
    title: build,
    maker,
    family,
    kind: 'full',
    channel: 'stable',
    build,
    ...usual,
    scale,
    archives,
    targets: [...targets],
    requires: {},
    effects: { erases: [] },
    images: [...images],
    published: { source: maker, sourceKind: 'maker', date: more.patchDate, digests: {} },
    ...more,
  }
}

type FileIn = {
  readonly name: string
  readonly bytes: number
  readonly chunks: () => Iterable<Uint8Array>
}

const filesOf = (draft: PackageDraft, images: readonly Image[]): readonly FileIn[] =>
  images.map(({ role, file, size, form }) => ({
    name: file,
    bytes: size,
    chunks: () =>
      piecesOf(
        form === 'wiping'
          ? wipingOrigin(draft, role)
          : originOf(draft.line, role, draft.build, draft.more.loaderVersion),
        size,
      ),
  }))

function sumsOf(images: readonly Image[]): FileIn {
  const text = Buffer.from(images.map(({ sha256, file }) => `${sha256}  ${file}\n`).join(''))
  return { name: 'SHA256SUMS', bytes: text.length, chunks: () => [text] }
}

function volume(file: string, files: readonly FileIn[]): Volume {
  const bytes = files.reduce(
    (total, one) => total + 512 + one.bytes + tarPadding(one.bytes).length,
    tarEnd().length,
  )
  return {
    file,
    bytes,
    *chunks() {
      for (const one of files) {
        yield tarHeader(one.name, one.bytes)
        yield* one.chunks()
        yield tarPadding(one.bytes)
      }
      yield tarEnd()
    },
  }
}

/** A download that broke off: a share of the bytes and no more. */
const truncated =
  (share: number) =>
  (whole: Volume): Volume => {
    const bytes = Math.floor(whole.bytes * share)
    return {
      file: whole.file,
      bytes,
      *chunks() {
        let left = bytes
        for (const chunk of whole.chunks()) {
          if (left <= 0) return
          yield chunk.subarray(0, left)
          left -= chunk.length
        }
      },
    }
  }

/** The volume's own digest: what a maker publishes beside it. */
export const digestOfVolume = (one: Volume): string =>
  one.key === undefined
    ? digestOfPieces(one.chunks())
    : keptDigest(one.key, () => digestOfPieces(one.chunks()))
