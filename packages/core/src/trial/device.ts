/**
 * A device of a family that nobody has: whole, of a build of its own, every image its maker's, closed, in its system. On it
 * a family is tried before it is taken in. Reads a profile; gives the device, what is known of its images, and images that
 * are wrong in one way each, for its start rules.
 */
import type { Family } from '../family/profile.ts'
import { modeOfKind } from '../family/modes.ts'
import { PART_CONDITIONS } from '../family/rules.ts'
import { modelled } from '../rehearsal/model-of.ts'
import type { PartRole } from '../terms/device.ts'
import type { ImageFacts, SignedBuild } from '../twin/images.ts'
import { rowOf } from '../twin/images.ts'
import type { DeviceModel } from '../twin/state.ts'
import type { Nature } from '../twin/stepped.ts'
import type { DeviceFacts } from '../wire/facts.ts'

/** One model, board and storage of a family. */
export type Kind = {
  readonly model: string
  readonly board: string
  readonly chipset: string
  readonly storageGb: number
}

/** Every model with each of its boards and storages, in the family's order. */
export const kindsOf = ({ models }: Family): readonly Kind[] =>
  models.flatMap(({ code: model, boards, chipset, storages }) =>
    boards.flatMap((board) =>
      storages.map((storageGb) => ({ model, board, chipset, storageGb }) satisfies Kind),
    ),
  )

/** The model, board and storage in a sentence. */
export const kindName = ({ model, board, storageGb }: Kind): string =>
  `${model} ${board}, ${storageGb} GB`

export type Tried = { readonly kind: Kind; readonly nature: Nature; readonly device: DeviceModel }

/** In what an image may be wrong: the conditions of a whole part, and an image of another build or for a newer loader. */
export const FLAWS = [
  ...PART_CONDITIONS.filter((one) => one !== 'torn'),
  'other-build',
  'newer-loader',
] as const
export type Flaw = (typeof FLAWS)[number]

/** What a device carries, of which nothing hangs on the figure: the rules compare. */
const GENERATION = 5
const LOADER = 10
const RELEASE = 10
const PATCHED = '2026-06-01'
const BUILD = 'its own build'
/** Sizes are divided by this: rules do not hang on them. */
const SCALE = 256

/** The id by which an image of a role with a flaw is known; without one: the image that stands there. */
export const imageName = (role: PartRole, flaw?: Flaw): string =>
  flaw === undefined ? `${role} of ${BUILD}` : `${role}, ${flaw}`

/** Makes the device; `track` says of which of the family's tracks its build is. */
export function tried(family: Family, kind: Kind, track = ''): Tried {
  const row = family.variants.find(({ models }) => models?.includes(kind.model) !== false)
  const [region, carrier] = [row?.region ?? '', row?.carrier ?? '']
  const { nature, device } = modelled(
    family,
    {
      facts: factsOf(family, kind, { region, carrier, track }),
      table: undefined,
      digests: new Map(),
    },
    [],
  )
  const own: SignedBuild = {
    build: BUILD,
    release: RELEASE,
    patchDate: PATCHED,
    service: false,
    track,
    generation: GENERATION,
    minLoader: 0,
    maxLoader: null,
    boards: [kind.board],
    chipsets: [kind.chipset],
    rows: [rowOf(region, carrier)],
  }
  const parts = Object.fromEntries(
    Object.entries(device.parts).map(([name, part]) => [
      name,
      { ...part, was: imageName(part.role) },
    ]),
  )
  const floors = Object.fromEntries(Object.keys(device.floors).map((key) => [key, GENERATION]))
  const catalogue = imagesFor(device, own)
  return { kind, nature: { ...nature, catalogue }, device: { ...device, parts, floors } }
}

/** What the device says of itself, all of it. */
const factsOf = (
  family: Family,
  kind: Kind,
  sold: { readonly region: string; readonly carrier: string; readonly track: string },
): DeviceFacts => ({
  ...kind,
  ...sold,
  serial: 'TRIAL',
  mode: modeOfKind(family, 'system'),
  build: BUILD,
  release: RELEASE,
  patchDate: PATCHED,
  loaderVersion: LOADER,
  bootLock: 'closed',
  batteryPercent: 100,
  outcome: 'normal',
  returns: 0,
  scale: SCALE,
})

/** For each role an image that fits the smallest of its partitions, and one with each flaw. */
function imagesFor(device: DeviceModel, own: SignedBuild): ReadonlyMap<string, ImageFacts> {
  const catalogue = new Map<string, ImageFacts>()
  for (const { role, blocks } of Object.values(device.parts)) {
    const known = catalogue.get(imageName(role))
    if (known !== undefined && known.blocks <= blocks) continue
    const loaderVersion = role === 'loader' ? LOADER : null
    const image: ImageFacts = {
      image: imageName(role),
      role,
      blocks,
      loaderVersion,
      modified: false,
      builds: [own],
    }
    catalogue.set(image.image, image)
    for (const flaw of FLAWS) {
      const flawed = { ...image, image: imageName(role, flaw), ...flawedBuild(own, flaw) }
      catalogue.set(flawed.image, flawed)
    }
  }
  return catalogue
}

function flawedBuild(own: SignedBuild, flaw: Flaw): Pick<ImageFacts, 'modified' | 'builds'> {
  const of = (more: Partial<SignedBuild>) => ({ modified: false, builds: [{ ...own, ...more }] })
  switch (flaw) {
    case 'modified':
      return { modified: true, builds: [own] }
    case 'other-chipset':
      return of({ chipsets: ['another chipset'] })
    case 'other-board':
      return of({ boards: ['another board'] })
    case 'below-floor':
      return of({ generation: GENERATION - 1 })
    case 'unpaired':
    case 'newer-loader':
      return of({ minLoader: LOADER + 1 })
    case 'other-variant':
    case 'not-fused':
      return of({ rows: [rowOf('another region', 'another carrier')] })
    case 'other-build':
      return of({ build: 'another build' })
  }
}
