/**
 * What a device finds when it checks its flash by the bytes themselves, before a start. A stretch that was
 * found to be there already, and so was not sent, is the image's as much as the ones that were.
 */
import type { Catalogue, DeviceModel } from '@plain-slate/core'
import { BLOCK_BYTES, imageOn, lay, withPart } from '@plain-slate/core'
import type { DeviceFile } from './device-file.ts'
import type { Flash } from './flash.ts'

/** The model with every partition whole whose bytes are, digest by digest, those of an image. */
export function checkedByBytes(
  model: DeviceModel,
  catalogue: Catalogue,
  { starts }: DeviceFile,
  flash: Flash,
): DeviceModel {
  let checked = model
  for (const [name, part] of Object.entries(model.parts)) {
    const image = part.map.find((run) => run.kind === 'image')?.image
    const facts = image === undefined ? undefined : catalogue.get(image)
    if (facts === undefined || imageOn(part, catalogue) !== undefined) continue
    const start = starts[name] ?? 0
    if (flash.digest(start, start + facts.blocks * BLOCK_BYTES) !== facts.image) continue
    const whole = { from: 0, to: facts.blocks, kind: 'image', image: facts.image, at: 0 } as const
    checked = withPart(checked, name, { ...part, map: lay(part.map, whole) })
  }
  return checked
}
