/**
 * Packages as a simulated device opens them: the archive read from its first byte to its last, every image held
 * against the manifest that lies in it by its own digest. One cut short, damaged or without a manifest is none.
 * What the device then writes comes from those very bytes.
 */
import { createHash } from 'node:crypto'
import type { Hash } from 'node:crypto'
import { closeSync, existsSync, openSync, readSync } from 'node:fs'
import { tarDecoder } from '@plain-slate/archives'
import type { TarEntry } from '@plain-slate/archives'
import type { Catalogue, DeviceModel, PackageFacts, Part } from '@plain-slate/core'
import { BLOCK_BYTES, factsIn, imageOn, manifestIn } from '@plain-slate/core'
import { tornBytes } from './answers.ts'
import { bytesIn } from './file-bytes.ts'
import type { Flash } from './flash.ts'

export type Place = { readonly flash: Flash; readonly startOf: (partition: string) => number }

export type Opened = {
  /** By what each file holds. */
  readonly facts: ReadonlyMap<string, PackageFacts>
  /** Writes to the flash what a device's state holds anew. */
  readonly write: (before: DeviceModel, after: DeviceModel, place: Place) => void
}

type File = { readonly holds: string; readonly path: string }
/** Where an image's bytes lie. */
type Lies = { readonly path: string; readonly offset: number }

export function openedFrom(files: readonly File[], catalogue: Catalogue): Opened {
  const facts = new Map<string, PackageFacts>()
  const images = new Map<string, Lies>()
  for (const { holds, path } of files) {
    const found = existsSync(path) ? packageIn(path) : undefined
    if (found === undefined) continue
    facts.set(holds, found.facts)
    for (const [image, offset] of found.images) images.set(image, { path, offset })
  }
  return {
    facts,
    write(before, after, place) {
      for (const [name, part] of Object.entries(after.parts)) {
        const was = before.parts[name]
        if (was !== undefined && was.map !== part.map)
          writePart({ name, was, part }, { before, catalogue, images }, place)
      }
    },
  }
}

type Read = { readonly entry: TarEntry; readonly hash: Hash; readonly text: Uint8Array[] }

/** The facts of a package whose every image is what its manifest says; undefined: it is no whole package. */
function packageIn(
  path: string,
): { readonly facts: PackageFacts; readonly images: ReadonlyMap<string, number> } | undefined {
  const decoder = tarDecoder()
  const whole = createHash('sha256')
  const entries: Read[] = []
  let bytes = 0
  const problems: string[] = []
  const take = (outputs: ReturnType<typeof decoder.push>) => {
    for (const output of outputs) {
      const last = entries.at(-1)
      if (output.kind === 'entry')
        entries.push({ entry: output.entry, hash: createHash('sha256'), text: [] })
      if (output.kind === 'bytes') last?.hash.update(output.bytes)
      if (output.kind === 'bytes' && last?.entry.name === MANIFEST) last.text.push(output.bytes)
      if (output.kind === 'refused') problems.push(output.refusal.rule)
      if (output.kind === 'end' && !output.endMark) problems.push('no end')
    }
  }
  for (const piece of bytesIn(path)) {
    whole.update(piece)
    bytes += piece.length
    take(decoder.push(piece))
  }
  take(decoder.end())
  const text = entries.find(({ entry }) => entry.name === MANIFEST)?.text
  const read =
    text === undefined || problems.length > 0 ? undefined : manifestIn(String(Buffer.concat(text)))
  if (read?.ok !== true) return undefined
  const found = new Map(
    entries.map(({ entry, hash }) => [hash.digest('hex'), { file: entry.name, ...entry }]),
  )
  const { value: manifest } = read
  const images = manifest.images.map(
    ({ sha256, file }) => [sha256, found.get(sha256), file] as const,
  )
  if (images.some(([, there, file]) => there?.file !== file)) return undefined
  const facts = factsIn(manifest, { sha256: whole.digest('hex'), bytes })
  return { facts, images: new Map(images.map(([sha256, there]) => [sha256, there?.offset ?? 0])) }
}

const MANIFEST = 'manifest.json'

type Changed = { readonly name: string; readonly was: Part; readonly part: Part }
type Sources = {
  readonly before: DeviceModel
  readonly catalogue: Catalogue
  readonly images: ReadonlyMap<string, Lies>
}

/** The blocks of a part that hold an image now, and the one that was being written as the power went. */
function writePart({ name, part }: Changed, sources: Sources, place: Place): void {
  const start = place.startOf(name)
  for (const run of part.map) {
    const [from, to] = [run.from * BLOCK_BYTES, run.to * BLOCK_BYTES]
    if (run.kind === 'image')
      place.flash.write(start + from, imageBytes(run.image, { from, to }, sources, place))
    if (run.kind === 'torn')
      place.flash.write(start + from, tornBytes(place.flash.read(start + from, to - from), EMPTY))
  }
}

const EMPTY = new Uint8Array()

type Range = { readonly from: number; readonly to: number }

/** A range of an image: out of a package, or from the part of another slot that holds it. */
function imageBytes(
  image: string,
  { from, to }: Range,
  sources: Sources,
  { flash, startOf }: Place,
): Uint8Array {
  const lies = sources.images.get(image)
  if (lies !== undefined)
    return readAt(lies.path, { from: lies.offset + from, to: lies.offset + to })
  const other = Object.entries(sources.before.parts).find(
    ([, part]) => imageOn(part, sources.catalogue)?.image === image,
  )
  if (other === undefined) throw new RangeError(`nowhere lies the image ${image.slice(0, 8)}`)
  return flash.read(startOf(other[0]) + from, to - from)
}

function readAt(path: string, { from, to }: Range): Uint8Array {
  const file = openSync(path, 'r')
  try {
    const bytes = new Uint8Array(to - from)
    readSync(file, bytes, 0, bytes.length, from)
    return bytes
  } finally {
    closeSync(file)
  }
}
