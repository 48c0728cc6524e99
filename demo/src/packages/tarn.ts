/** The tarn packages of the demo: what each is, as far as the builder needs to be told. */
import type { PartRole } from '@plain-slate/core'
import type { Line, PackageDraft } from './line.ts'
import { draftOf } from './line.ts'

const FULL: readonly PartRole[] = ['modem', 'kernel', 'rescue', 'variant', 'support', 'main']

const lineOf = (board: string, builds: readonly string[]): Line => ({
  key: board,
  family: 'tarn',
  maker: 'Brakken',
  imageMib: { loader: 2, modem: 86, kernel: 48, rescue: 40, main: 3400, support: 700, variant: 20 },
  full: FULL,
  builds,
  targets: ['BRAK-H2K', 'BRAK-H2'].map((model) => ({
    model,
    boards: [board],
    chipset: 'Slate 2',
    storage: [32],
    region: 'HI',
  })),
  usual: { generation: 6, together: [['kernel', 'support', 'main']] },
  loaderByVersion: true,
})

/** Builds of one board line in their order. */
export const TARN_R4 = lineOf('r4', [
  'H2.0ZC.r4',
  'H2.0ZP.r4',
  'H2.0ZR.r4',
  'H2.0ZX.r4',
  'H2.102.r4',
  'H2.104.r4',
])
export const TARN_R5 = lineOf('r5', ['H2.0ZP.r5', 'H2.104.r5'])

const draft = (
  build: string,
  more: PackageDraft['more'],
  also: Partial<PackageDraft> = {},
): PackageDraft => draftOf(build.endsWith('r5') ? TARN_R5 : TARN_R4, build, more, also)

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
export const TARN_ON_DEVICES: readonly PackageDraft[] = [
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
