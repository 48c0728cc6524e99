/** The alder packages of the demo: two lines of phones that share a name and no image. */
import type { Manifest, PartRole } from '@plain-slate/core'
import type { Line, PackageDraft } from './line.ts'
import { draftOf } from './line.ts'

const FULL: readonly PartRole[] = [
  'loader',
  'modem',
  'kernel',
  'rescue',
  'variant',
  'support',
  'main',
]
const targets = (
  models: readonly string[],
  boards: readonly string[],
  chipset: string,
): Manifest['targets'] =>
  models.map((model) => ({
    model,
    boards: [...boards],
    chipset,
    storage: [64, 128, 256],
    region: 'HI',
    carriers: ['O'],
  }))

const TOGETHER = { together: [['kernel', 'support', 'main'] satisfies PartRole[]] }

/** Alder 4: chipset Mica 2, boards of two years. */
export const ALDER_4: Line = {
  key: 'alder 4',
  family: 'alder',
  maker: 'Corvane',
  imageMib: {
    loader: 6,
    modem: 104,
    kernel: 52,
    rescue: 70,
    main: 4300,
    support: 820,
    variant: 40,
  },
  full: FULL,
  builds: ['19-2620.1-HO', '20-2632.0-HO', '20-2638.0-HO', '20-2640.1-HO', '20-2638.9-HO'],
  targets: targets(['CORV-4N', 'CORV-4M'], ['B1', 'B2'], 'Mica 2'),
  usual: { generation: 3, ...TOGETHER },
  loaderByVersion: false,
}

/** Alder 5 with board C: chipset Mica 3. */
export const ALDER_5C: Line = {
  ...ALDER_4,
  key: 'alder 5 C',
  imageMib: { ...ALDER_4.imageMib, loader: 9, main: 5100 },
  builds: ['20-2634.0-HO', '21-2641.1-HO'],
  targets: targets(['CORV-5N', 'CORV-5M'], ['C'], 'Mica 3'),
}

/** Alder 5 with board C as Skerry sells it. */
export const ALDER_5C_S: Line = {
  ...ALDER_5C,
  key: 'alder 5 C of S',
  builds: ['20-2634.0-HS', '21-2641.1-HS'],
  targets: ALDER_5C.targets.map((one) => ({ ...one, carriers: ['S'] })),
  rowOf: ALDER_5C,
}

/** Alder 5 as it is sold abroad: another chipset under the same name. */
export const ALDER_5X: Line = {
  ...ALDER_5C,
  key: 'alder 5 X',
  builds: ['20-2630.0-EO'],
  targets: targets(['CORV-5X'], ['E'], 'Flint 1').map((one) => ({
    ...one,
    storage: [128, 256],
    region: 'EX',
  })),
}

/** The seven: the release before, two of this one, service software, both of Alder 5, and a variant part. */
export const ALDER_PACKAGES: readonly PackageDraft[] = [
  draftOf(ALDER_4, '19-2620.1-HO', {
    release: 19,
    patchDate: '2026-05-01',
    generation: 2,
    generations: { loader: 3 },
    loaderVersion: 30,
    radioVersion: '19.4',
    requires: { minLoader: 29, maxLoader: 31 },
  }),
  draftOf(ALDER_4, '20-2638.0-HO', {
    release: 20,
    patchDate: '2026-09-01',
    loaderVersion: 31,
    radioVersion: '20.2',
    requires: { minLoader: 30, maxLoader: 32 },
  }),
  draftOf(ALDER_4, '20-2640.1-HO', {
    release: 20,
    patchDate: '2026-10-01',
    loaderVersion: 31,
    radioVersion: '20.3',
    requires: { minLoader: 30, maxLoader: 32 },
  }),
  draftOf(
    ALDER_4,
    '20-2638.9-HO',
    {
      id: 'alder-service-20-2638.9',
      title: 'service 20-2638.9',
      kind: 'service',
      release: 20,
      patchDate: '2026-09-01',
      requires: { minLoader: 30, maxLoader: 32 },
    },
    { roles: ['kernel', 'support', 'main'] },
  ),
  draftOf(ALDER_5C, '20-2634.0-HO', {
    release: 20,
    patchDate: '2026-08-01',
    loaderVersion: 31,
    radioVersion: '20.1',
    requires: { minLoader: 30, maxLoader: 33 },
  }),
  draftOf(
    ALDER_5C,
    '21-2641.1-HO',
    {
      release: 21,
      patchDate: '2026-10-01',
      loaderVersion: 32,
      radioVersion: '21.0',
      requires: { minLoader: 31, maxLoader: 33 },
    },
    { volumes: [['kernel', 'rescue'], ['main', 'support'], ['variant']] },
  ),
  draftOf(
    ALDER_5C,
    '20-2634.0-HO',
    {
      id: 'alder-variant-20-2634.0-HO',
      title: 'variant HO of 20-2634.0',
      kind: 'part',
      release: 20,
      patchDate: '2026-08-01',
      together: [],
    },
    { roles: ['variant'] },
  ),
]

/** What stands on devices and on no shelf. */
export const ALDER_ON_DEVICES: readonly PackageDraft[] = [
  draftOf(ALDER_4, '20-2632.0-HO', {
    release: 20,
    patchDate: '2026-07-01',
    loaderVersion: 30,
    radioVersion: '20.0',
    requires: { minLoader: 30, maxLoader: 32 },
  }),
  draftOf(ALDER_5C_S, '20-2634.0-HS', {
    release: 20,
    patchDate: '2026-08-01',
    loaderVersion: 31,
    radioVersion: '20.1',
    requires: { minLoader: 30, maxLoader: 33 },
  }),
  draftOf(ALDER_5X, '20-2630.0-EO', {
    release: 20,
    patchDate: '2026-06-01',
    loaderVersion: 31,
    radioVersion: '20.0',
    requires: { minLoader: 30, maxLoader: 33 },
  }),
]
