/**
 * What the depot knows of and nobody here has: builds of other boards, regions, carriers and years, and the steps
 * between them. Their digests stand for bytes that are nowhere.
 */
import type { Manifest } from '@plain-slate/core'
import { ALDER_4, ALDER_5C, ALDER_5X } from './alder.ts'
import { DEMO_PACKAGES } from './all.ts'
import { FEN_11A, FEN_11C, FEN_8B } from './fen.ts'
import type { Line, PackageDraft } from './line.ts'
import { draftOf, idOfDraft } from './line.ts'
import { TARN_R4, TARN_R5 } from './tarn.ts'

/** How many packages are known in the demo, with those that are here. */
export const KNOWN_IN_ALL = 214

/** The same line of builds for others: its targets changed, its packages called apart by a suffix. */
type Row = { readonly line: Line; readonly suffix: string }
const rowOf = (line: Line, suffix: string, change: Partial<Manifest['targets'][number]>): Row => ({
  line: {
    ...line,
    key: `${line.key} ${suffix}`,
    targets: line.targets.map((one) => ({ ...one, ...change })),
  },
  suffix,
})

const named = ({ line, suffix }: Row, build: string): string =>
  `${line.family}-${build}${suffix === '' ? '' : `-${suffix}`}`
const titled = ({ suffix }: Row, build: string): string =>
  suffix === '' ? build : `${build} for ${suffix}`

type Made = Pick<Manifest, 'release' | 'patchDate'> & Partial<Manifest>
const packageOf = (row: Row, build: string, made: Made): PackageDraft =>
  draftOf(row.line, build, { id: named(row, build), title: titled(row, build), ...made })

/* Brakken: the counter of a build, what it is of. */
const TARN_MADE: readonly (readonly [counter: string, made: Made])[] = [
  ['0Z4', { release: 3, patchDate: '2026-01-15', generation: 4, radioVersion: '2.8' }],
  ['0Z8', { release: 3, patchDate: '2026-03-01', generation: 4, radioVersion: '2.9' }],
  ['0ZA', { release: 3, patchDate: '2026-04-15', generation: 4, radioVersion: '3.0' }],
  ['0ZC', { release: 4, patchDate: '2026-06-01', generation: 5, radioVersion: '3.1' }],
  ['0ZP', { release: 4, patchDate: '2026-07-01', generation: 5, radioVersion: '3.2' }],
  ['0ZX', { release: 4, patchDate: '2026-08-01', generation: 5, radioVersion: '3.3' }],
  ['102', { release: 5, patchDate: '2026-09-01', radioVersion: '3.9', requires: { minLoader: 7 } }],
  ['104', { release: 5, patchDate: '2026-10-01', radioVersion: '4.0', requires: { minLoader: 7 } }],
]
const tarnRow = (row: Row, line: string, board: string): readonly PackageDraft[] =>
  TARN_MADE.map(([counter, made]) => packageOf(row, `${line}.${counter}.${board}`, made))

const H1: Line = {
  ...TARN_R4,
  key: 'r3',
  targets: [{ model: 'BRAK-H1', boards: ['r3'], chipset: 'Slate 1', storage: [32], region: 'HI' }],
}
const TARN_KNOWN: readonly PackageDraft[] = [
  ...tarnRow(rowOf(H1, '', {}), 'H1', 'r3'),
  ...tarnRow(rowOf(H1, 'ML', { region: 'ML' }), 'H1', 'r3'),
  ...tarnRow(rowOf(H1, 'EX', { region: 'EX' }), 'H1', 'r3'),
  ...tarnRow(rowOf(TARN_R4, '', {}), 'H2', 'r4').slice(0, 3),
  ...tarnRow(rowOf(TARN_R4, 'ML', { region: 'ML' }), 'H2', 'r4'),
  ...tarnRow(rowOf(TARN_R4, '64 GB', { storage: [64] }), 'H2', 'r4'),
  ...tarnRow(rowOf(TARN_R5, '', {}), 'H2', 'r5').slice(2, 7),
  ...tarnRow(rowOf(TARN_R5, 'EX', { region: 'EX' }), 'H2', 'r5'),
  ...tarnRow(rowOf(TARN_R5, '64 GB', { storage: [64] }), 'H2', 'r5'),
]

/* Corvane: release, week and respin of a build, what it is of. */
const ALDER_MADE: readonly (readonly [build: string, made: Made])[] = [
  ['18-2602.0', { release: 18, patchDate: '2026-01-01', generation: 1, loaderVersion: 29 }],
  ['18-2610.2', { release: 18, patchDate: '2026-03-01', generation: 1, loaderVersion: 29 }],
  ['19-2616.0', { release: 19, patchDate: '2026-04-01', generation: 2, loaderVersion: 30 }],
  ['19-2624.1', { release: 19, patchDate: '2026-06-01', generation: 2, loaderVersion: 30 }],
  ['20-2630.3', { release: 20, patchDate: '2026-07-01', generation: 3, loaderVersion: 31 }],
  ['20-2636.0', { release: 20, patchDate: '2026-08-15', generation: 3, loaderVersion: 31 }],
  ['20-2640.1', { release: 20, patchDate: '2026-10-01', generation: 3, loaderVersion: 31 }],
]
const SOLD: readonly (readonly [letters: string, Partial<Manifest['targets'][number]>])[] = [
  ['HS', { carriers: ['S'] }],
  ['HN', { carriers: ['N'] }],
  ['MO', { region: 'ML', carriers: ['O'] }],
  ['MN', { region: 'ML', carriers: ['N'] }],
]
const alderRow = (line: Line, letters: string, name: string): readonly PackageDraft[] =>
  ALDER_MADE.map(([build, made]) =>
    packageOf({ line, suffix: name }, `${build}-${letters}`, {
      ...made,
      requires: { minLoader: 29, maxLoader: 33 },
    }),
  )
const ALDER_5D: Line = {
  ...ALDER_5C,
  key: 'alder 5 D',
  targets: ALDER_5C.targets.map((one) => ({ ...one, boards: ['D'] })),
}
const ALDER_KNOWN: readonly PackageDraft[] = [
  ...alderRow(ALDER_4, 'HO', '').slice(0, 3),
  ...alderRow(ALDER_5C, 'HO', 'Alder 5 C').slice(0, 5),
  ...SOLD.flatMap(([letters, change]) =>
    alderRow(rowOf(ALDER_4, letters, change).line, letters, 'Alder 4'),
  ),
  ...SOLD.flatMap(([letters, change]) =>
    alderRow(rowOf(ALDER_5C, letters, change).line, letters, 'Alder 5 C'),
  ),
  ...alderRow(ALDER_5D, 'HO', 'Alder 5 D'),
  ...alderRow(ALDER_5X, 'EO', 'Alder 5 X'),
]

/* Ostrel: each stable build in full, and the step from the one before. */
const FEN_MADE = ['26.07A', '26.09A', '26.11B', '26.13A', '26.15A', '26.17C', '26.19A', '26.21B']
/** The first working day of a fortnight's month, near enough for a made-up build. */
const fenDay = (build: string): string =>
  `2026-${String(Math.ceil(Number(build.slice(3, 5)) / 2.2)).padStart(2, '0')}-01`
const fenRow = (row: Row): readonly PackageDraft[] =>
  FEN_MADE.flatMap((build, index) => {
    const about = { release: build >= '26.13A' ? 8 : 7, patchDate: fenDay(build), track: 'S' }
    const before = FEN_MADE[index - 1]
    const full = packageOf(row, `FEN-${build}-S`, { ...about, loaderVersion: 11 })
    if (before === undefined) return [full]
    const step = draftOf(
      row.line,
      `FEN-${build}-S`,
      {
        ...about,
        id: `${named(row, `FEN-${before}-S`)}-to-${build}`,
        title: `${titled(row, `FEN-${before}-S`)} to ${build}`,
        kind: 'incremental',
        requires: { exactBuild: `FEN-${before}-S` },
      },
      { roles: ['kernel', 'variant', 'support', 'main'] },
    )
    return [full, step]
  })
const FEN_8A: Line = {
  ...FEN_8B,
  key: 'fen 8A',
  targets: FEN_8B.targets.map((one) => ({ ...one, model: 'OSTR-8A', boards: ['f1'] })),
}
const FEN_KNOWN: readonly PackageDraft[] = [
  ...fenRow({ line: FEN_11C, suffix: 'OSTR-11C' }),
  ...fenRow({ line: FEN_8B, suffix: 'OSTR-8B' }),
  ...fenRow({ line: FEN_8A, suffix: 'OSTR-8A' }),
  ...fenRow({ line: FEN_11A, suffix: 'OSTR-11A' }).slice(0, 8),
]

/** Told apart by their ids from those that are here. */
const here = new Set(DEMO_PACKAGES.map(idOfDraft))

/** What is known and not here. */
export const KNOWN_PACKAGES: readonly PackageDraft[] = [...TARN_KNOWN, ...ALDER_KNOWN, ...FEN_KNOWN]
  .filter((one) => !here.has(idOfDraft(one)))
  .slice(0, KNOWN_IN_ALL - DEMO_PACKAGES.length)
