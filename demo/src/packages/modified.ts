/** Parts that owners changed: what a device knows of them by their bytes, and that nobody signed them. */
import type { Catalogue, ImageFacts } from '@plain-slate/core'
import type { DemoDevice } from '../devices/devices.ts'
import { DEMO_SCALE, imageBytes } from './build.ts'
import { digestOf } from './content.ts'
import { modifiedOrigin, originOf } from './line.ts'

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
