/** Packages of the tarn family for core's tests, made by hand; real digests are not needed here. */
import { packageKey } from '../firmware/manifest.ts'
import type { Manifest, Shelved } from '../firmware/manifest.ts'
import type { PartRole } from '../terms/device.ts'

const MIB = 1024 * 1024
/** Scale of the demo: 1 MiB of a real device is 4 KiB. */
export const SCALE = 256

/** A digest that says what it is of: 64 hex digits made from a text. */
export function digestOf(text: string): string {
  let hex = ''
  for (let index = 0; hex.length < 64; index += 1) {
    let value = 2166136261 ^ index
    for (const letter of text) value = Math.imul(value ^ letter.charCodeAt(0), 16777619)
    hex += (value >>> 0).toString(16).padStart(8, '0')
  }
  return hex.slice(0, 64)
}

const IMAGE_MIB: Readonly<Partial<Record<PartRole, number>>> = {
  loader: 2,
  modem: 86,
  kernel: 48,
  rescue: 40,
  main: 3400,
  support: 700,
  variant: 20,
}

/** An image of a role in a build; `same` names the build whose bytes it shares. */
export function image(role: PartRole, build: string, same = build) {
  const size = Math.ceil(((IMAGE_MIB[role] ?? 1) * MIB) / SCALE / 4096) * 4096
  return {
    role,
    partition: role,
    archive: `${build}.tar`,
    file: `${role}.img`,
    size,
    storedSize: size,
    sha256: digestOf(`${role} ${same}`),
  }
}

type Draft = Partial<Manifest> & {
  readonly build: string
  readonly roles?: readonly PartRole[]
  /** Builds whose image a role shares byte by byte. */
  readonly shared?: Readonly<Partial<Record<PartRole, string>>>
}

/** A package for the H2K on board r4 with 32 GB, unless told otherwise. */
export function pack(draft: Draft): Manifest {
  const roles = draft.roles ?? ['modem', 'kernel', 'rescue', 'variant', 'support', 'main']
  return {
    format: 'plain-slate/manifest@1',
    id: `tarn-${draft.build}-${draft.kind ?? 'full'}`,
    title: draft.build,
    maker: 'Brakken',
    family: 'tarn',
    kind: 'full',
    channel: 'stable',
    release: 4,
    patchDate: '2026-06-01',
    generation: 6,
    scale: SCALE,
    archives: [{ file: `${draft.build}.tar` }],
    targets: [
      { model: 'BRAK-H2K', boards: ['r4'], chipset: 'Slate 2', storage: [32], region: 'HI' },
    ],
    requires: {},
    together: [['kernel', 'support', 'main']],
    effects: { erases: [] },
    images: roles.map((role) => image(role, draft.build, draft.shared?.[role])),
    published: { source: 'maker', sourceKind: 'maker', date: '2026-06-02', digests: {} },
    ...draft,
  }
}

/** The package as a shelf has it: in one archive, whose digest and bytes it knows. */
export function archived(manifest: Manifest): Manifest {
  const bytes = manifest.images.reduce((sum, { size }) => sum + size, 4096)
  return {
    ...manifest,
    archives: manifest.archives.map(({ file }) => ({ file, sha256: digestOf(manifest.id), bytes })),
  }
}

export const onDevice = pack({ build: 'H2.0ZC.r4', radioVersion: '3.1' })
export const between = pack({ build: 'H2.0ZP.r4', patchDate: '2026-07-01', radioVersion: '3.2' })
export const newest = pack({
  build: 'H2.104.r4',
  release: 5,
  patchDate: '2026-10-01',
  requires: { minLoader: 7 },
  radioVersion: '4.0',
  shared: { rescue: 'H2.0ZC.r4', variant: 'H2.0ZC.r4' },
})
export const loader7 = pack({
  build: 'H2.0ZC.r4',
  id: 'tarn-loader-7',
  kind: 'part',
  title: 'loader 7',
  loaderVersion: 7,
  roles: ['loader'],
  together: [],
})
export const otherBoard = pack({
  build: 'H2.104.r5',
  targets: [{ model: 'BRAK-H2K', boards: ['r5'], chipset: 'Slate 2', storage: [32], region: 'HI' }],
})

export const proven = (manifest: Manifest): Shelved => ({
  key: packageKey(manifest.id, digestOf(manifest.id)),
  manifest,
  state: 'published',
})
export const shelf: readonly Shelved[] = [onDevice, between, newest, loader7, otherBoard].map(
  proven,
)
