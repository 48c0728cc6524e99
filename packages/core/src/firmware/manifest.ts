/**
 * A package's manifest: what a maker says of a package, with the fields the rules need. Reads JSON
 * that stood in an archive or was described by hand; gives the checked manifest. Unknown fields are
 * kept; a newer major version is refused by its `format`.
 */
import { z } from 'zod'
import { digestSchema } from '../book/entry.ts'
import { partRoleSchema } from '../terms/device.ts'

const name = z.string().min(1).max(120)
const generation = z.int().nonnegative()

export const KINDS = ['full', 'incremental', 'part', 'service'] as const
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
  /** One generation for the whole where the family keeps one floor. */
  generation,
  loaderVersion: z.exactOptional(z.int().nonnegative()),
  radioVersion: z.exactOptional(name),
  /** 1 for a demo package at real size; a package of scale 256 holds a 256th of each image. */
  scale: z.int().positive(),
  archives: z.array(z.looseObject({ file: name, sha256: z.exactOptional(digestSchema) })),
  targets: z.array(target).min(1),
  requires: z.looseObject({
    exactBuild: z.exactOptional(name),
    minLoader: z.exactOptional(z.int().nonnegative()),
    maxLoader: z.exactOptional(z.int().nonnegative()),
  }),
  together: z.array(z.array(partRoleSchema)),
  effects: z.looseObject({ erases: z.array(name) }),
  images: z.array(imageSchema).min(1),
  published: z.looseObject({
    source: name,
    sourceKind: z.enum(['maker', 'mirror', 'person']),
    date: z.iso.date(),
    digests: z.record(z.string(), digestSchema),
  }),
})
export type Manifest = z.infer<typeof manifestSchema>

/** Why a manifest cannot be read. */
export type NoManifest =
  | { readonly kind: 'newer'; readonly format: string }
  | { readonly kind: 'unreadable'; readonly path: string; readonly problem: string }

/** Reads a manifest, saying the first place that is wrong. */
export function readManifest(
  raw: unknown,
):
  | { readonly ok: true; readonly value: Manifest }
  | { readonly ok: false; readonly refusal: NoManifest } {
  const parsed = manifestSchema.safeParse(raw)
  if (parsed.success) return { ok: true, value: parsed.data }
  const format =
    typeof raw === 'object' && raw !== null && 'format' in raw ? String(raw.format) : ''
  if (/^plain-slate\/manifest@\d+$/.test(format) && format !== 'plain-slate/manifest@1')
    return { ok: false, refusal: { kind: 'newer', format } }
  const [issue] = parsed.error.issues
  const path = issue?.path.map(String).join('.') ?? ''
  return { ok: false, refusal: { kind: 'unreadable', path, problem: issue?.message ?? '' } }
}

/** What a shelf knows of a package: its manifest, and whether its bytes are here and proven. */
export type Shelved = {
  readonly manifest: Manifest
  readonly state: 'proven' | 'here' | 'known' | 'refuted'
}
