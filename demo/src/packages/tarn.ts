/** The tarn packages of the demo: what each is, as far as the builder needs to be told. */
import type { Manifest, PartRole } from '@plain-slate/core'
import type { Origin } from './content.ts'

/** MiB of each image at real size; a package's scale divides them. */
export const IMAGE_MIB: Readonly<Partial<Record<PartRole, number>>> = {
  loader: 2,
  modem: 86,
  kernel: 48,
  rescue: 40,
  main: 3400,
  support: 700,
  variant: 20,
}
const FULL: readonly PartRole[] = ['modem', 'kernel', 'rescue', 'variant', 'support', 'main']

/** Builds of one board line in their order; a package holds its own and shares with those before. */
const LINES: Readonly<Record<string, readonly string[]>> = {
  r4: ['H2.0ZC.r4', 'H2.0ZP.r4', 'H2.0ZR.r4', 'H2.0ZX.r4', 'H2.102.r4', 'H2.104.r4'],
  r5: ['H2.0ZP.r5', 'H2.104.r5'],
}

/** What an image of a part in a build is made from. A loader is of its own version, not of a build. */
export function originOf(role: PartRole, build: string, loader?: number): Origin {
  const board = build.slice(-2)
  if (role === 'loader') return { role, board, line: [`loader ${loader ?? 0}`] }
  const line = LINES[board] ?? [build]
  return { role, board, line: line.slice(0, line.indexOf(build) + 1) }
}

export type PackageDraft = {
  readonly build: string
  readonly more: Partial<Manifest> & Pick<Manifest, 'release' | 'patchDate'>
  readonly roles: readonly PartRole[]
  /** Volumes beyond the first, with the parts that lie in each. */
  readonly volumes: readonly (readonly PartRole[])[]
  /** Share of the archive that is left of a damaged one. */
  readonly truncatedTo?: number
  /** True when only the first volume came: the rest is still to be fetched. */
  readonly firstOnly?: boolean
}

const draft = (
  build: string,
  more: PackageDraft['more'],
  also: Partial<PackageDraft> = {},
): PackageDraft => ({ build, more, roles: FULL, volumes: [], ...also })

/**
 * The eight: on the device, the loader part, one between, one of which a volume is missing, one in two
 * volumes, the newest, another board's, a damaged one.
 */
export const TARN_PACKAGES: readonly PackageDraft[] = [
  draft('H2.0ZC.r4', { release: 4, patchDate: '2026-06-01', radioVersion: '3.1' }),
  draft(
    'H2.0ZC.r4',
    {
      id: 'tarn-loader-7-r4',
      title: 'loader 7',
      kind: 'part',
      release: 4,
      patchDate: '2026-06-01',
      loaderVersion: 7,
      together: [],
    },
    { roles: ['loader'] },
  ),
  draft('H2.0ZP.r4', { release: 4, patchDate: '2026-07-01', radioVersion: '3.2' }),
  draft(
    'H2.0ZR.r4',
    { release: 4, patchDate: '2026-07-20', radioVersion: '3.2' },
    { volumes: [['main']], firstOnly: true },
  ),
  draft(
    'H2.102.r4',
    { release: 5, patchDate: '2026-09-01', radioVersion: '3.9', requires: { minLoader: 7 } },
    { volumes: [['main']] },
  ),
  draft('H2.104.r4', {
    release: 5,
    patchDate: '2026-10-01',
    radioVersion: '4.0',
    requires: { minLoader: 7 },
  }),
  draft('H2.104.r5', {
    release: 5,
    patchDate: '2026-10-01',
    radioVersion: '4.0',
    requires: { minLoader: 7 },
  }),
  draft(
    'H2.0ZX.r4',
    { release: 4, patchDate: '2026-08-01', radioVersion: '3.3' },
    { truncatedTo: 0.6 },
  ),
]

/** Loaders and builds that stand on devices and on no shelf. */
export const ON_DEVICES_ONLY: readonly PackageDraft[] = [
  draft(
    'H2.0ZC.r4',
    {
      id: 'tarn-loader-6-r4',
      title: 'loader 6',
      kind: 'part',
      release: 4,
      patchDate: '2026-02-01',
      loaderVersion: 6,
      together: [],
    },
    { roles: ['loader'] },
  ),
  draft(
    'H2.0ZP.r5',
    {
      id: 'tarn-loader-7-r5',
      title: 'loader 7',
      kind: 'part',
      release: 4,
      patchDate: '2026-06-01',
      loaderVersion: 7,
      together: [],
    },
    { roles: ['loader'] },
  ),
  draft('H2.0ZP.r5', { release: 4, patchDate: '2026-07-01', radioVersion: '3.2' }),
]
