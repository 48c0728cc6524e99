/**
 * What is known of images by their digests: of which builds they are, for what they were made, what they need.
 * Reads manifests; gives the catalogue that a twin and a simulated device look things up in. Neighbouring
 * builds may share an image, byte by byte.
 */
import { z } from 'zod'
import type { Manifest } from '../firmware/manifest.ts'
import { isCarried } from '../firmware/carried.ts'
import { generationFor } from '../firmware/manifest.ts'
import { partRoleSchema } from '../terms/device.ts'
import { BLOCK_BYTES } from './blocks.ts'

/** A build for which an image was made. */
export const signedBuildSchema = z
  .object({
    build: z.string(),
    release: z.int(),
    patchDate: z.string(),
    /** The maker's own, for service: it needs a permit, and nothing of the customer's becomes of it. */
    service: z.boolean().default(false),
    /** Empty where the family has no tracks. */
    track: z.string(),
    /** Of this part. */
    generation: z.int(),
    /** The loaders it starts under; `maxLoader` null: every newer one. */
    minLoader: z.int(),
    maxLoader: z.int().nullable(),
    /** Boards, chipsets and rows of variants it was made for; empty: for whichever. */
    boards: z.array(z.string()).readonly(),
    chipsets: z.array(z.string()).readonly(),
    rows: z.array(z.string()).readonly(),
  })
  .readonly()
export type SignedBuild = z.infer<typeof signedBuildSchema>

export const imageFactsSchema = z
  .object({
    image: z.string(),
    role: partRoleSchema,
    blocks: z.int(),
    /** The loader this image is; null: it is none. */
    loaderVersion: z.int().nullable(),
    /** Not the maker's: made from these builds, and signed by nobody. */
    modified: z.boolean(),
    builds: z.array(signedBuildSchema).readonly(),
  })
  .readonly()
export type ImageFacts = z.infer<typeof imageFactsSchema>
export type Catalogue = ReadonlyMap<string, ImageFacts>

/** A row of variants: where a device is sold, and under whose name. */
export const rowOf = (region: string, carrier: string): string => `${region}/${carrier}`

/** Facts of every image of these packages. */
export function catalogueOf(manifests: readonly Manifest[]): Catalogue {
  const known = new Map<string, ImageFacts>()
  for (const manifest of manifests)
    for (const { sha256: image, role, size } of manifest.images) {
      const before = known.get(image)?.builds ?? []
      known.set(image, {
        image,
        role,
        blocks: Math.ceil(size / BLOCK_BYTES),
        loaderVersion: role === 'loader' ? (manifest.loaderVersion ?? null) : null,
        modified: isCarried(manifest, image),
        builds: [...before, buildIn(manifest, role)],
      })
    }
  return known
}

function buildIn(manifest: Manifest, role: ImageFacts['role']): SignedBuild {
  const { build, release, patchDate, track = '', requires, targets } = manifest
  const unique = (values: readonly string[]) => [...new Set(values)]
  return {
    build,
    release,
    patchDate,
    service: manifest.kind === 'service',
    track,
    generation: generationFor(manifest, role),
    minLoader: requires.minLoader ?? 0,
    maxLoader: requires.maxLoader ?? null,
    boards: unique(targets.flatMap(({ boards }) => boards)),
    chipsets: unique(targets.map(({ chipset }) => chipset)),
    rows: unique(
      targets.flatMap(({ region, carriers }) =>
        region === undefined ? [] : (carriers ?? []).map((carrier) => rowOf(region, carrier)),
      ),
    ),
  }
}
