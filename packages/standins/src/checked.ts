/**
 * What a device finds when it checks its flash by the bytes themselves: before a start, and when the process
 * behind it was killed in mid-piece. A stretch that was found to be there already, and so was not sent, is
 * the image's as much as the ones that were; a piece that was given up is whatever its bytes are.
 */
import type { Catalogue, DeviceModel, ImageFacts, Part } from '@plain-slate/core'
import { BLOCK_BYTES, imageOn, isUntouched, lay, withPart } from '@plain-slate/core'
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
    if (isUntouched(part.map) || imageOn(part, catalogue) !== undefined) continue
    const found = imageInBytes(part, catalogue, starts[name] ?? 0, flash)
    if (found !== undefined) checked = withPart(checked, name, wholeOf(part, found))
  }
  return checked
}

/** The image whose digest the bytes from a partition's start have; undefined: none that could stand there. */
function imageInBytes(
  part: Part,
  catalogue: Catalogue,
  start: number,
  flash: Flash,
): ImageFacts | undefined {
  const digests = new Map<number, string>()
  const digestOf = (blocks: number): string => {
    const known = digests.get(blocks)
    if (known !== undefined) return known
    const made = flash.digest(start, start + blocks * BLOCK_BYTES)
    digests.set(blocks, made)
    return made
  }
  return candidates(part, catalogue).find(
    ({ image, blocks }) => blocks <= part.blocks && digestOf(blocks) === image,
  )
}

/** Images that may stand there: those the map names, and where it is torn any that was signed for the part. */
function candidates(part: Part, catalogue: Catalogue): readonly ImageFacts[] {
  const named = part.map.flatMap((run) => (run.kind === 'image' ? [run.image] : []))
  const torn = part.map.some(({ kind }) => kind === 'torn')
  return [...catalogue.values()].filter(
    ({ image, role }) => named.includes(image) || (torn && role === part.role),
  )
}

/** What was there before and still is, is old; everything else that is whole was written. */
function wholeOf(part: Part, { image, blocks }: ImageFacts): Part {
  const range = { from: 0, to: blocks }
  const run =
    image === part.was
      ? ({ ...range, kind: 'old' } as const)
      : ({ ...range, kind: 'image', image, at: 0 } as const)
  return { ...part, map: lay(part.map, run) }
}
