/**
 * Devices of the three families with a shelf around them, as a seed throws them: builds one after the other, parts that
 * raise the loader, increments from one build to the next, each with what it asks at random.
 */
import type { Family } from '../family/profile.ts'
import { modeOfKind } from '../family/modes.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { identify } from '../device/identity.ts'
import { readingsOf } from '../device/over-link.ts'
import type { DeviceState } from '../plan/state.ts'
import type { DeviceModel } from '../twin/state.ts'
import { imageOn } from '../twin/parts.ts'
import { factsOf } from '../twin/told.ts'
import { chances } from '../units/chances.ts'
import { reading } from './devices.ts'
import type { Bench } from './families.ts'
import { alder, benchOf, caseOf, fen, packageOf } from './families.ts'
import { archived, image } from './packages.ts'
import { tarn } from './tarn.ts'

type Line = {
  readonly family: Family
  readonly model: string
  readonly board: string
  readonly builds: readonly (Pick<Manifest, 'build' | 'release'> & { readonly track?: string })[]
  readonly loaders: readonly number[]
}
const LINES: readonly Line[] = [
  {
    family: tarn,
    model: 'BRAK-H2K',
    board: 'r4',
    builds: [
      { build: 'H2.0ZC.r4', release: 4 },
      { build: 'H2.0ZP.r4', release: 4 },
      { build: 'H2.104.r4', release: 5 },
    ],
    loaders: [6, 7],
  },
  {
    family: alder,
    model: 'CORV-5N',
    board: 'C',
    builds: [
      { build: '20-2634.0-HO', release: 20 },
      { build: '20-2638.0-HO', release: 20 },
      { build: '21-2641.0-HO', release: 21 },
    ],
    loaders: [31, 32],
  },
  {
    family: fen,
    model: 'OSTR-11A',
    board: 'g1',
    builds: [
      { build: 'FEN-26.20B-S', release: 8, track: 'S' },
      { build: 'FEN-26.20C-S', release: 8, track: 'S' },
      { build: 'FEN-26.21B-S', release: 8, track: 'S' },
    ],
    loaders: [31, 32],
  },
]

/** The lowest generation of a part; an image is of one. */
const LEAST = 4
const loaderName = (version: number, generation: number) => `loader ${version}, ${generation}`

/** A device with a shelf, of a seed's choosing. */
export function worldBench(seed: number): Bench {
  const random = chances(seed)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T
  const thrown = pick(LINES)
  const line = { ...thrown, family: keeping(thrown.family, seed) }
  const { family, builds, loaders } = line
  const fulls = builds.map((one, index) =>
    fullOf(line, { ...one, index, random, loader: pick(loaders) }),
  )
  const increments = fulls.slice(1).map((next, index) => {
    const base = fulls[index] as Manifest
    return archived({
      ...next,
      id: `${next.build} from ${base.build}`,
      title: `${next.build} from ${base.build}`,
      kind: 'incremental',
      requires: { ...next.requires, exactBuild: base.build },
    })
  })
  const known = fulls.filter(() => random() < 0.5)
  const shelf = [...known, ...increments, ...loaders.slice(1).map((one) => loaderOf(line, one))]
  const on = pick(fulls)
  const lock = family.lock.opens === 'command' && random() < 0.3 ? 'open' : 'closed'
  const merge =
    family.merge !== undefined && random() < 0.3 ? pick(['merging', 'staged'] as const) : 'none'
  const mode = pick(['system', 'off'] as const)
  return benchOf({
    family,
    on,
    shelf,
    more: {
      lock,
      merge,
      mode: modeOfKind(family, mode),
      permission: random() < 0.6,
      loaderVersion: on.loaderVersion ?? on.requires.minLoader ?? loaders[0] ?? 0,
    },
  })
}

/** Of some worlds a closed lock lets nobody write the main part, and nothing installs it either. */
function keeping(family: Family, seed: number): Family {
  const { lock } = family
  return seed % 6 === 0 && lock.opens === 'command'
    ? { ...family, lock: { ...lock, keeps: ['main'] }, installs: [] }
    : family
}

function fullOf(
  { family, model, board }: Line,
  about: Line['builds'][number] & {
    readonly index: number
    readonly loader: number
    readonly random: () => number
  },
): Manifest {
  const { index, loader, random, ...build } = about
  const brings = random() < 0.4
  const roles = family.writeOrder.filter((role) => role !== 'loader' || brings)
  const generation = LEAST + Math.floor(random() * 2)
  const own = packageOf(family, {
    model,
    board,
    ...build,
    patchDate: `2026-0${6 + index}-01`,
    generation,
    images: roles.map((role) =>
      image(role, role === 'loader' ? loaderName(loader, generation) : build.build),
    ),
    requires: random() < 0.5 ? { minLoader: loader } : {},
  })
  const { loaderVersion: _, ...rest } = own
  const slots = family.partitions.some(({ slot }) => slot !== undefined)
  return archived({
    ...rest,
    ...(brings ? { loaderVersion: loader } : {}),
    images: inOne(rest).filter(({ role }) => !slots || role !== 'modem'),
  })
}

/** Its images lie in its own archive, whoever shares their bytes. */
const inOne = ({ images, archives: [one] }: Manifest): Manifest['images'] =>
  images.map((each) => ({ ...each, archive: one?.file ?? '' }))

const loaderOf = ({ family, model, board, builds: [first] }: Line, version: number): Manifest =>
  archived(
    packageOf(family, {
      model,
      board,
      build: first?.build ?? '',
      release: first?.release ?? 0,
      id: `loader ${version}`,
      title: `loader ${version}`,
      kind: 'part',
      loaderVersion: version,
      generation: LEAST,
      together: [],
      images: [{ ...image('loader', loaderName(version, LEAST)), archive: `${first?.build}.tar` }],
    }),
  )

/** Where a device stands, as far as anything of it can be read: every fact, every partition that is whole. */
export function stateOf(bench: Bench, more: Partial<DeviceState['at']> = {}): DeviceState {
  const { device, shelf } = bench
  const [aim] = shelf
  if (aim === undefined) throw new Error('an empty shelf')
  const { shelved: _, ...at } = caseOf(bench, aim, {
    identity: identityOf(bench, device),
    evidence: new Map(
      Object.entries(imagesOf(bench, device)).map(([name, sha256]) => [
        name,
        { kind: 'digest', sha256 } as const,
      ]),
    ),
    ...more,
  })
  return { at, mode: device.mode, permission: device.permission }
}

export function identityOf(
  { family, nature }: Pick<Bench, 'family' | 'nature'>,
  device: DeviceModel,
) {
  const readings = family.modes.flatMap(({ id }) =>
    readingsOf(factsOf(nature, { ...device, mode: id }), 1 as Parameters<typeof readingsOf>[1]),
  )
  return identify(family, [
    ...readings,
    reading('accountLock', 'absent'),
    reading('batteryHealth', 'sound'),
  ])
}

/** The image on every partition that holds one whole. */
export const imagesOf = ({ nature }: Pick<Bench, 'nature'>, device: DeviceModel) =>
  Object.fromEntries(
    Object.entries(device.parts).flatMap(([name, part]) => {
      const on = imageOn(part, nature.catalogue)
      return on === undefined ? [] : [[name, on.image]]
    }),
  )
