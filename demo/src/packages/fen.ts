/** The fen packages of the demo: tablets whose builds come on two tracks. */
import type { PartRole } from '@plain-slate/core'
import type { Line, PackageDraft } from './line.ts'
import { draftOf } from './line.ts'

const FULL: readonly PartRole[] = ['loader', 'kernel', 'rescue', 'variant', 'support', 'main']

/** Fen 11 without radio. */
export const FEN_11A: Line = {
  key: 'fen 11A',
  family: 'fen',
  maker: 'Ostrel',
  imageMib: { loader: 6, kernel: 80, rescue: 100, main: 4100, support: 640, variant: 40 },
  full: FULL,
  builds: ['FEN-26.19A-S', 'FEN-26.21A-T', 'FEN-26.21B-S'],
  targets: [
    {
      model: 'OSTR-11A',
      boards: ['g1'],
      chipset: 'Mica 3',
      storage: [64, 128],
      region: 'HI',
      carriers: ['O'],
    },
  ],
  usual: { generation: 4, together: [['kernel', 'support', 'main']] },
  loaderByVersion: false,
}

/** Fen 11 with radio, and Fen 8. */
export const FEN_11C: Line = {
  ...FEN_11A,
  key: 'fen 11C',
  imageMib: { ...FEN_11A.imageMib, modem: 130 },
  full: ['loader', 'modem', 'kernel', 'rescue', 'variant', 'support', 'main'],
  builds: ['FEN-26.19A-S'],
  targets: FEN_11A.targets.map((one) => ({ ...one, model: 'OSTR-11C' })),
}
export const FEN_8B: Line = {
  ...FEN_11A,
  key: 'fen 8B',
  builds: ['FEN-26.19A-S'],
  targets: FEN_11A.targets.map((one) => ({
    ...one,
    model: 'OSTR-8B',
    boards: ['f2'],
    chipset: 'Reed 1',
  })),
}

/** The four: a stable build, the trial one, the stable one after it, and the step from the one to the other. */
export const FEN_PACKAGES: readonly PackageDraft[] = [
  draftOf(FEN_11A, 'FEN-26.19A-S', {
    release: 8,
    patchDate: '2026-09-01',
    track: 'S',
    loaderVersion: 11,
  }),
  draftOf(FEN_11A, 'FEN-26.21A-T', {
    release: 9,
    patchDate: '2026-10-01',
    track: 'T',
    channel: 'pilot',
    loaderVersion: 11,
  }),
  draftOf(FEN_11A, 'FEN-26.21B-S', {
    release: 8,
    patchDate: '2026-10-01',
    track: 'S',
    loaderVersion: 11,
  }),
  draftOf(
    FEN_11A,
    'FEN-26.21B-S',
    {
      id: 'fen-FEN-26.19A-S-to-21B',
      title: 'FEN-26.19A-S to FEN-26.21B-S',
      kind: 'incremental',
      release: 8,
      patchDate: '2026-10-01',
      track: 'S',
      requires: { exactBuild: 'FEN-26.19A-S' },
    },
    { roles: ['kernel', 'variant', 'support', 'main'] },
  ),
]

/** What stands on devices and on no shelf. */
export const FEN_ON_DEVICES: readonly PackageDraft[] = [FEN_11C, FEN_8B].map((line) =>
  draftOf(line, 'FEN-26.19A-S', {
    release: 8,
    patchDate: '2026-09-01',
    track: 'S',
    loaderVersion: 11,
  }),
)
