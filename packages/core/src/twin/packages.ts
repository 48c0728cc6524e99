/**
 * What is known of whole packages by the digest of their one archive: what a device finds in it when it opens
 * it. Reads manifests as a shelf has them, with the digest and bytes of each archive; gives facts by digest. A
 * package in several volumes is none that a device opens by itself.
 */
import { z } from 'zod'
import { digestSchema } from '../book/entry.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { KINDS, archiveOf } from '../firmware/manifest.ts'
import { partRoleSchema } from '../terms/device.ts'

export const packageFactsSchema = z
  .object({
    /** SHA-256 of the archive. */
    package: digestSchema,
    /** Real bytes of the archive. */
    bytes: z.int().positive(),
    kind: z.enum(KINDS),
    /** The one build an increment goes on; null: whichever. */
    base: z.string().nullable(),
    targets: z
      .array(z.object({ model: z.string(), boards: z.array(z.string()).readonly() }))
      .readonly(),
    images: z
      .array(
        z.object({
          role: partRoleSchema,
          partition: z.string(),
          image: z.string(),
          /** Real bytes of the image. */
          size: z.int().positive(),
        }),
      )
      .readonly(),
  })
  .readonly()
export type PackageFacts = z.infer<typeof packageFactsSchema>
export type Packages = ReadonlyMap<string, PackageFacts>

/** Facts of every package that lies whole in one archive. */
export const packagesOf = (manifests: readonly Manifest[]): Packages =>
  new Map(
    manifests.flatMap((manifest): readonly (readonly [string, PackageFacts])[] => {
      const archive = archiveOf(manifest)
      return archive === undefined ? [] : [[archive.sha256, factsIn(manifest, archive)]]
    }),
  )

/** What an archive holds by its manifest. */
export const factsIn = (
  { kind, requires, targets, images }: Manifest,
  { sha256, bytes }: { readonly sha256: string; readonly bytes: number },
): PackageFacts => ({
  package: sha256,
  bytes,
  kind,
  base: requires.exactBuild ?? null,
  targets: targets.map(({ model, boards }) => ({ model, boards })),
  images: images.map(({ role, partition, sha256: image, size }) => ({
    role,
    partition,
    image,
    size,
  })),
})
