/**
 * A package's manifest: what a maker says of a package, with the fields the rules need. Reads JSON
 * that stood in an archive or was described by hand; gives the checked manifest. Unknown fields are
 * kept; a newer major version is refused by its `format`.
 */
import { z } from 'zod'
import { digestSchema } from '../book/entry.ts'
import type { PartRole } from '../terms/device.ts'
import { partRoleSchema } from '../terms/device.ts'
import { permitWordSchema } from '../terms/permit-word.ts'

/** Texts of a manifest go into lists, sentences and file names: no control characters in them. */
const name = z
  .string()
  .min(1)
  .max(120)
  // eslint-disable-next-line no-control-regex -- they are what is refused
  .regex(/^[^\u0000-\u001f\u007f]*$/, 'no control characters')
const generation = z.int().nonnegative()

export const KINDS = ['full', 'incremental', 'part', 'service'] as const
/** Parts of which an owner may carry over an image of their own: a loader is kept once, and a radio is the maker's. */
export const CARRIED_ROLES = [
  'kernel',
  'rescue',
  'main',
  'support',
] as const satisfies readonly PartRole[]

export const CHANNELS = ['stable', 'preview', 'pilot', 'unreleased'] as const

/** `size` is what the partition holds, `storedSize` what lies in the archive. */
export const imageSchema = z.looseObject({
  role: partRoleSchema,
  partition: name,
  archive: name,
  file: name,
  size: z.int().positive(),
  storedSize: z.int().positive(),
  sha256: digestSchema,
  /** Of a part that comes in two: one that leaves the customer's data, and one whose start takes them. */
  form: z.exactOptional(z.enum(['keeping', 'wiping'])),
})
export type Image = z.infer<typeof imageSchema>

const target = z.looseObject({
  model: name,
  boards: z.array(name).min(1),
  chipset: name,
  storage: z.array(z.int().positive()).min(1),
  region: z.exactOptional(name),
  carriers: z.exactOptional(z.array(name)),
})

/** Targets and images of a package at most: none has a tenth of it. */
const LISTED_MOST = 2000

export const manifestSchema = z.looseObject({
  format: z.literal('plain-slate/manifest@1'),
  id: name,
  title: name,
  maker: name,
  family: name,
  kind: z.enum(KINDS),
  channel: z.enum(CHANNELS),
  build: name,
  release: z.int().nonnegative(),
  patchDate: z.iso.date(),
  /** One generation for all parts; `generations` says it of single ones. */
  generation,
  generations: z.exactOptional(z.partialRecord(partRoleSchema, generation)),
  /** Of a family whose builds come on several tracks. */
  track: z.exactOptional(name),
  loaderVersion: z.exactOptional(z.int().nonnegative()),
  radioVersion: z.exactOptional(name),
  /** 1 for a demo package at real size; a package of scale 256 holds a 256th of each image. */
  scale: z.int().positive(),
  /** `sha256` and `bytes` of the first, which holds this very text, are put to it by the shelf. */
  archives: z.array(
    z.looseObject({
      file: name,
      sha256: z.exactOptional(digestSchema),
      bytes: z.exactOptional(z.int().positive()),
    }),
  ),
  targets: z.array(target).min(1).max(LISTED_MOST),
  requires: z.looseObject({
    exactBuild: z.exactOptional(name),
    minLoader: z.exactOptional(z.int().nonnegative()),
    maxLoader: z.exactOptional(z.int().nonnegative()),
    /** The least radio under which it starts: numbers between dots. */
    minRadio: z.exactOptional(name),
    /** The least release that is on the device before: the ones between may not be skipped. */
    minRelease: z.exactOptional(z.int().nonnegative()),
    /** The same, as it was called before. */
    leastRelease: z.exactOptional(z.int().nonnegative()),
    /** The parts of the signed set that are on it are those of the build that is on it. */
    untouchedSystem: z.exactOptional(z.boolean()),
    /** The boot lock is open while it is written. */
    openLock: z.exactOptional(z.boolean()),
    /** It is installed from a memory card, and in no other way. */
    card: z.exactOptional(z.boolean()),
    /** The kind of its maker's permit without which it does not go on. */
    permitKind: z.exactOptional(permitWordSchema),
  }),
  together: z.array(z.array(partRoleSchema)),
  /** The day up to which its maker supports this build. */
  supportedUntil: z.exactOptional(z.iso.date()),
  effects: z.looseObject({ erases: z.array(name) }),
  /**
   * The layout it is made for, in device order, where its maker gives it; what is left out is not compared. Bytes are of
   * the storage at the package's scale; a partition without them takes the rest.
   */
  layout: z.exactOptional(
    z.looseObject({
      alignBytes: z.exactOptional(z.int().positive()),
      partitions: z
        .array(
          z.looseObject({
            name,
            bytes: z.exactOptional(z.int().positive()),
            startBytes: z.exactOptional(z.int().nonnegative()),
            type: z.exactOptional(z.guid()),
          }),
        )
        .min(1)
        .max(1024),
    }),
  ),
  images: z.array(imageSchema).min(1).max(LISTED_MOST),
  /**
   * Images in it that are not its maker's but of the owner of one device, made from this package: put to it by the shelf,
   * and taken from no manifest that comes in. `percent` of each that is still the maker's.
   */
  carried: z.exactOptional(
    z.object({
      serial: name,
      images: z
        .array(
          z.object({
            role: z.enum(CARRIED_ROLES),
            sha256: digestSchema,
            percent: z.int().min(0).max(100),
          }),
        )
        .min(1),
    }),
  ),
  published: z.looseObject({
    source: name,
    sourceKind: z.enum(['maker', 'mirror', 'person']),
    date: z.iso.date(),
    digests: z.record(z.string(), digestSchema),
  }),
})
export type Manifest = z.infer<typeof manifestSchema>

/** The one archive of a package that a device can open by itself, where it is here; undefined: none. */
export function archiveOf({
  archives,
}: Pick<Manifest, 'archives'>): { readonly sha256: string; readonly bytes: number } | undefined {
  const [one, ...others] = archives
  if (one?.sha256 === undefined || one.bytes === undefined || others.length > 0) return undefined
  return { sha256: one.sha256, bytes: one.bytes }
}

/** The least release that must be on a device before a package; undefined: it names none. */
export function leastReleaseOf({ requires }: Pick<Manifest, 'requires'>): number | undefined {
  const { minRelease, leastRelease } = requires
  return minRelease === undefined ? leastRelease : Math.max(minRelease, leastRelease ?? 0)
}

/** The generation that a package's image of a role carries. */
export const generationFor = (
  { generation: all, generations }: Manifest,
  role: Image['role'],
): number => generations?.[role] ?? all

/** Why a manifest cannot be read. */
export type NoManifest =
  | { readonly kind: 'newer'; readonly format: string }
  | { readonly kind: 'unreadable'; readonly path: string; readonly problem: string }

/** Whether every text in a value can be kept: no table and no canonical JSON takes these characters. */
export function isStorable(value: unknown): boolean {
  if (typeof value === 'string') return !/\0|\p{Surrogate}/u.test(value)
  if (Array.isArray(value)) return value.every(isStorable)
  if (typeof value !== 'object' || value === null) return true
  return Object.entries(value).every(([key, one]) => isStorable(key) && isStorable(one))
}

/** Reads the text of a manifest. */
export function manifestIn(text: string): ReturnType<typeof readManifest> {
  const refuse = (problem: string) =>
    ({ ok: false, refusal: { kind: 'unreadable', path: '', problem } }) as const
  if (text.trim() === '') return refuse('it is empty')
  try {
    return readManifest(JSON.parse(text))
  } catch {
    return refuse('it is no JSON')
  }
}

/** Why a manifest could not be read: where, and what is wrong there. */
export const whyUnread = (refusal: NoManifest): string =>
  refusal.kind === 'newer'
    ? `newer format ${refusal.format}`
    : [refusal.path, refusal.problem].filter((part) => part !== '').join(': ')

/** Reads a manifest, saying the first place that is wrong. */
export function readManifest(
  raw: unknown,
):
  | { readonly ok: true; readonly value: Manifest }
  | { readonly ok: false; readonly refusal: NoManifest } {
  if (!isStorable(raw))
    return {
      ok: false,
      refusal: { kind: 'unreadable', path: '', problem: 'a text with a NUL or half a character' },
    }
  const parsed = manifestSchema.safeParse(raw)
  if (parsed.success) {
    /* Nobody outside says of an image that it was carried over here. */
    const { carried: _, ...value } = parsed.data
    return { ok: true, value }
  }
  const format =
    typeof raw === 'object' && raw !== null && 'format' in raw ? String(raw.format) : ''
  if (/^plain-slate\/manifest@\d+$/.test(format) && format !== 'plain-slate/manifest@1')
    return { ok: false, refusal: { kind: 'newer', format } }
  const [issue] = parsed.error.issues
  const path = issue?.path.map(String).join('.') ?? ''
  return { ok: false, refusal: { kind: 'unreadable', path, problem: issue?.message ?? '' } }
}

/**
 * How far a package is vouched for. *Known*: not all of it is here. *Whole*: everything its own manifest
 * and sums say holds; nothing vouches for itself, so no more than that. *Published*: whole, and every
 * volume equals a digest that came from outside the archive. *Refuted*: a digest contradicts.
 */
export const PACKAGE_STATES = ['known', 'whole', 'published', 'refuted'] as const
export type PackageState = (typeof PACKAGE_STATES)[number]

/** Where a digest from outside came from: a depot's signed catalogue, the maker's own page, a person who typed it in. */
export const OUTSIDE = ['catalogue', 'maker', 'person'] as const
export type OutsideSource = (typeof OUTSIDE)[number]
/** Whose word a package rests on, and since which day (ISO). */
export type Vouched = { readonly by: OutsideSource; readonly date: string }

/** What a shelf knows of a package: its manifest, how far it is vouched for, and by what it is known. */
export type Shelved = {
  readonly key: string
  readonly manifest: Manifest
  readonly state: PackageState
  /** Who vouches for it from outside, the weakest word of all its volumes; undefined: nobody, or nobody asks. */
  readonly vouched?: Vouched
}

/** Digits of the digest that tell packages of one id apart. */
const KEY_DIGITS = 12

/** What a package is known by: the same id with other bytes is another package. */
export const packageKey = (id: string, archive: string): string =>
  `${id}~${archive.slice(0, KEY_DIGITS)}`

/** The id in a key. */
export const idOfKey = (key: string): string => key.replace(/~[0-9a-f]{12}$/, '')

/** The package meant by a key, or by an id that only one of them bears. */
export function packageNamed<One extends Pick<Shelved, 'key' | 'manifest'>>(
  shelf: readonly One[],
  name: string,
):
  | { readonly kind: 'one'; readonly found: One }
  | { readonly kind: 'none' }
  | { readonly kind: 'several'; readonly keys: readonly string[] } {
  const exact = shelf.find(({ key }) => key === name)
  if (exact !== undefined) return { kind: 'one', found: exact }
  const named = shelf.filter(({ manifest }) => manifest.id === name)
  const [found] = named
  if (found === undefined) return { kind: 'none' }
  if (named.length === 1) return { kind: 'one', found }
  return { kind: 'several', keys: named.map(({ key }) => key) }
}
