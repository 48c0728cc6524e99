/** Parts that owners changed: what a device knows of them by their bytes, and that nobody signed them. */
import type { Catalogue, ImageFacts, PartRole } from '@plain-slate/core'
import type { DemoDevice } from '../devices/devices.ts'
import { DEMO_SCALE, imageBytes } from './build.ts'
import { ALDER_5C } from './alder.ts'
import { bytesOf, digestOf } from './content.ts'
import type { Line } from './line.ts'
import { modifiedOrigin, originOf } from './line.ts'

/** A part that an owner changed, made from a build, and brings to be carried over. */
export type OwnImage = { readonly line: Line; readonly role: PartRole; readonly build: string }

/** What the owner of 0414 made of the newest build's kernel. */
export const OWN_OF_0414: OwnImage = { line: ALDER_5C, role: 'kernel', build: '21-2641.1-HO' }

/** Its bytes, at a scale. */
export const bytesOfOwn = ({ line, role, build }: OwnImage, scale = DEMO_SCALE): Uint8Array =>
  bytesOf(modifiedOrigin(line, role, build), 0, imageBytes(line, role, scale))

/** Facts of images that owners bring. */
export const ownFacts = (
  images: readonly OwnImage[],
  signed: Catalogue,
  scale = DEMO_SCALE,
): readonly ImageFacts[] =>
  modifiedFacts(
    images.map(({ line, role, build }) => ({ line, build, loader: 0, modified: [role] })),
    signed,
    scale,
  )

/** Facts of every changed part on these devices: of the builds of the image it was made from. */
export const modifiedFacts = (
  devices: readonly Pick<DemoDevice, 'line' | 'build' | 'loader' | 'modified'>[],
  signed: Catalogue,
  scale = DEMO_SCALE,
): readonly ImageFacts[] =>
  devices.flatMap(({ line, build, loader, modified = [] }) =>
    modified.flatMap((role) => {
      const size = imageBytes(line, role, scale)
      const made = signed.get(digestOf(originOf(line, role, build, loader), size))
      if (made === undefined) return []
      const image = digestOf(modifiedOrigin(line, role, build), size)
      return [{ ...made, image, modified: true }]
    }),
  )
