/**
 * The model of a device: what stands on it, what it remembers, what it would do when started. Reads
 * nothing; gives the shapes, and the start rules as a function of what is there. Time is passed in.
 */
import type { Family } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Mode, PartRole } from '../terms/device.ts'
import type { StartOutcome } from '../wire/facts.ts'
import type { BlockMap } from './blocks.ts'
import { BLOCK_BYTES, holds, isUntouched, untouched } from './blocks.ts'

/** What is known of an image by its digest. */
export type ImageFacts = {
  readonly image: string
  readonly role: PartRole
  readonly build: string
  readonly release: number
  readonly generation: number
  readonly blocks: number
  /** The loader this image is, or the least it starts under. */
  readonly loaderVersion: number | undefined
  readonly minLoader: number
}
export type Catalogue = ReadonlyMap<string, ImageFacts>

export type Part = {
  readonly role: PartRole
  readonly blocks: number
  readonly map: BlockMap
  /** The image that stood there when the device came in; undefined: none we know. */
  readonly was: string | undefined
}

/** A begun piece: what was announced, and how many bytes of it are kept. */
export type Session = {
  readonly partition: string
  readonly offset: number
  readonly size: number
  readonly image: string
  readonly got: number
}

export type DeviceModel = {
  readonly serial: string
  readonly mode: Mode
  readonly parts: Readonly<Record<string, Part>>
  readonly session: Session | undefined
  /** Percent, with fractions. */
  readonly battery: number
  readonly floor: number
  readonly lock: 'closed' | 'open'
  readonly permission: boolean
  readonly loaderVersion: number
  /** The customer's data: by which release they were last used, and whether they open. */
  readonly data: { readonly release: number; readonly readable: boolean }
  /** How the last start went. */
  readonly outcome: StartOutcome
  /** The highest epoch met; older ones are refused. */
  readonly epoch: number
  /** Up to when this state was reckoned, ms of model time. */
  readonly at: number
}

/** Facts of every image of these packages. */
export function catalogueOf(manifests: readonly Manifest[]): Catalogue {
  return new Map(
    manifests.flatMap((manifest) =>
      manifest.images.map(({ sha256, role, size }) => [
        sha256,
        {
          image: sha256,
          role,
          build: manifest.build,
          release: manifest.release,
          generation: manifest.generation,
          blocks: Math.ceil(size / BLOCK_BYTES),
          loaderVersion: role === 'loader' ? manifest.loaderVersion : undefined,
          minLoader: manifest.requires.minLoader ?? 0,
        },
      ]),
    ),
  )
}

/** A partition as it came in, holding an image we may know. */
export const partOf = (role: PartRole, blocks: number, was: string | undefined): Part => ({
  role,
  blocks,
  map: untouched(blocks),
  was,
})

/** The image a part holds whole; undefined when it is torn, mixed or unknown. */
export function imageOn(part: Part, catalogue: Catalogue): ImageFacts | undefined {
  if (isUntouched(part.map)) return part.was === undefined ? undefined : catalogue.get(part.was)
  const [first] = part.map
  if (first?.kind !== 'image') return undefined
  const facts = catalogue.get(first.image)
  return facts !== undefined && holds(part.map, facts.image, facts.blocks) ? facts : undefined
}

/** The partition of a role. */
export const partBy = (device: DeviceModel, role: PartRole): Part | undefined =>
  Object.values(device.parts).find((part) => part.role === role)

/** A loader that is torn or mixed leaves the device dead once its power is gone. */
export function loaderIsWhole(device: DeviceModel, catalogue: Catalogue): boolean {
  const part = partBy(device, 'loader')
  if (part === undefined) return false
  return isUntouched(part.map) || imageOn(part, catalogue) !== undefined
}

/** What a start to the system would come to, by the family's start rules. */
export function startOutcome(
  family: Family,
  device: DeviceModel,
  catalogue: Catalogue,
): StartOutcome {
  if (!loaderIsWhole(device, catalogue)) return 'dead'
  const set = family.signedSet.map((role) => {
    const part = partBy(device, role)
    return part === undefined ? undefined : imageOn(part, catalogue)
  })
  const builds = new Set(set.map((image) => image?.build))
  const main = set.find((image) => image?.role === 'main')
  if (builds.size !== 1 || main === undefined) return 'loop'
  if (device.loaderVersion < main.minLoader) return 'loop'
  if (main.release < device.data.release) return 'loop'
  const modem = partBy(device, 'modem')
  const radio = modem === undefined ? undefined : imageOn(modem, catalogue)
  const paired = radio !== undefined && device.loaderVersion >= radio.minLoader
  return paired ? 'normal' : 'no-radio'
}

/** The build that the main part holds, or undefined. */
export const buildOn = (device: DeviceModel, catalogue: Catalogue): ImageFacts | undefined => {
  const main = partBy(device, 'main')
  return main === undefined ? undefined : imageOn(main, catalogue)
}
