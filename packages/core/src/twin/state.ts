/**
 * The model of a device: what stands on it, what it remembers, what it would do when started. Reads
 * nothing; gives the shapes, and the start rules as a function of what is there. Time is passed in.
 */
import type { Family } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Mode, PartRole } from '../terms/device.ts'
import type { Fused, StartOutcome } from '../wire/facts.ts'
import type { BlockMap } from './blocks.ts'
import { BLOCK_BYTES, holds, isUntouched, untouched } from './blocks.ts'

/** A build for which an image was signed. */
export type SignedBuild = {
  readonly build: string
  readonly release: number
  readonly patchDate: string
  readonly generation: number
  /** The least loader it starts under. */
  readonly minLoader: number
}

/** What is known of an image by its digest. Neighbouring builds may share one, byte by byte. */
export type ImageFacts = {
  readonly image: string
  readonly role: PartRole
  readonly blocks: number
  /** The loader this image is. */
  readonly loaderVersion: number | undefined
  readonly builds: readonly SignedBuild[]
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
  readonly fused: Fused
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
  readonly data: {
    readonly release: number
    readonly readable: boolean
    readonly items: number
    readonly bytes: number
  }
  /** How the last start went, and how often it came back by itself since. */
  readonly outcome: StartOutcome
  readonly returns: number
  /** The highest epoch met; older ones are refused. */
  readonly epoch: number
  /** Up to when this state was reckoned, ms of model time. */
  readonly at: number
}

/** Facts of every image of these packages. */
export function catalogueOf(manifests: readonly Manifest[]): Catalogue {
  const known = new Map<string, ImageFacts>()
  for (const manifest of manifests)
    for (const { sha256: image, role, size } of manifest.images) {
      const { build, release, patchDate, generation, requires, loaderVersion } = manifest
      const before = known.get(image)?.builds ?? []
      known.set(image, {
        image,
        role,
        blocks: Math.ceil(size / BLOCK_BYTES),
        loaderVersion: role === 'loader' ? loaderVersion : undefined,
        builds: [
          ...before,
          { build, release, patchDate, generation, minLoader: requires.minLoader ?? 0 },
        ],
      })
    }
  return known
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
  const image = first?.kind === 'image' ? first.image : part.was
  const facts = image === undefined ? undefined : catalogue.get(image)
  if (facts === undefined) return undefined
  return holds(part.map, facts.image, 0, facts.blocks, part.was) ? facts : undefined
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
  const system = systemOn(family, device, catalogue)
  if (system === undefined) return 'loop'
  if (device.loaderVersion < system.minLoader) return 'loop'
  if (system.release < device.data.release) return 'loop'
  const modem = partBy(device, 'modem')
  const radio = modem === undefined ? undefined : imageOn(modem, catalogue)
  const paired = radio?.builds.some(({ minLoader }) => device.loaderVersion >= minLoader) === true
  return paired ? 'normal' : 'no-radio'
}

/** The newest build for which every part of the signed set is the signed one; undefined: there is none. */
export function systemOn(
  family: Family,
  device: DeviceModel,
  catalogue: Catalogue,
): SignedBuild | undefined {
  const sets = family.signedSet.map((role) => {
    const part = partBy(device, role)
    return (part === undefined ? undefined : imageOn(part, catalogue))?.builds ?? []
  })
  const [first = [], ...others] = sets
  const common = first.filter(({ build }) =>
    others.every((set) => set.some((one) => one.build === build)),
  )
  return common.reduce<SignedBuild | undefined>(
    (newest, one) => (newest === undefined || one.patchDate > newest.patchDate ? one : newest),
    undefined,
  )
}

/** The build a device says it holds: the one it would start, else the one its main part is of. */
export function buildOn(
  family: Family,
  device: DeviceModel,
  catalogue: Catalogue,
): SignedBuild | undefined {
  const main = partBy(device, 'main')
  const image = main === undefined ? undefined : imageOn(main, catalogue)
  return systemOn(family, device, catalogue) ?? image?.builds.at(-1)
}
