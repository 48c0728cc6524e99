/**
 * The book's half year: sixty runs on handhelds, one every three days or so, and among them thirty-six on phones and
 * tablets, on all cables. Cable B is worn and slow, E drops now and then. Each comes from its number alone.
 */
import type { DeviceFacts, Fault } from '@plain-slate/core'
import { chances } from '@plain-slate/core'
import type { DemoName } from '../people.ts'
import { factsOn, shelvedNamed, tarnFacts } from './devices.ts'
import type { Entered } from './enter-run.ts'
import { idFor } from './enter-run.ts'
import { pastRun } from './past-run.ts'

export const PAST_RUNS = 60
const DAY_MS = 86_400_000
const DAYS = 180
const FIRST_SEED = 1000
const CABLES = ['A', 'B', 'C', 'D', 'E', 'F', 'A', 'C'] as const
const PORTS: Readonly<Record<string, string>> = {
  A: 'P1',
  B: 'P4',
  C: 'P2',
  D: 'P3',
  E: 'P6',
  F: 'P5',
}
const BY: readonly DemoName[] = ['Tavi', 'Pell', 'Ilse']
/** Pieces of the plan that a cable can come out of. */
const PIECES = 12

type Kind = { readonly build: string; readonly loader: number; readonly package: string }
const KINDS: readonly Kind[] = [
  { build: 'H2.0ZC.r4', loader: 7, package: 'tarn-H2.0ZP.r4' },
  { build: 'H2.0ZP.r4', loader: 7, package: 'tarn-H2.104.r4' },
  { build: 'H2.0ZP.r4', loader: 7, package: 'tarn-H2.102.r4' },
  { build: 'H2.0ZC.r4', loader: 6, package: 'tarn-H2.102.r4' },
]

export type Past = Entered & { readonly seed: number }

/** What was done to phones and tablets: from a build of the shelf to another, with the data or without. */
type Going = {
  readonly from: string
  readonly to: string
  readonly keepData: boolean
  /** Floors that the build before has not raised yet. */
  readonly more?: Partial<DeviceFacts>
}
const OTHERS: readonly Going[] = [
  { from: 'alder-19-2620.1-HO', to: 'alder-20-2638.0-HO', keepData: true },
  { from: 'alder-20-2638.0-HO', to: 'alder-20-2640.1-HO', keepData: true },
  {
    from: 'alder-20-2638.0-HO',
    to: 'alder-19-2620.1-HO',
    keepData: false,
    more: { floorModem: 2, floorMain: 2, loaderVersion: 30 },
  },
  { from: 'fen-FEN-26.19A-S', to: 'fen-FEN-26.21B-S', keepData: true },
  { from: 'fen-FEN-26.21A-T', to: 'fen-FEN-26.21B-S', keepData: false },
]
export const OTHER_RUNS = 36
const OTHER_SEED = 5000

type Drawn = { readonly facts: DeviceFacts; readonly package: string; readonly keepData: boolean }

/** The runs, the oldest first; `now` is the demo's own. */
export const pastRuns = (now: number): readonly Past[] =>
  [
    ...runsFrom(now, { count: PAST_RUNS, seed: FIRST_SEED }, handheld),
    ...runsFrom(now, { count: OTHER_RUNS, seed: OTHER_SEED }, phoneOrTablet),
  ].sort((a, b) => a.startedAt - b.startedAt)

type Serial = (prefix: string) => string

function handheld(next: () => number, kind: number, serialOf: Serial): Drawn {
  const drawn = KINDS[Math.floor(kind * KINDS.length)]
  if (drawn === undefined) throw new Error('no kind of run')
  const { build, loader, package: id } = drawn
  const batteryPercent = 60 + Math.floor(next() * 40)
  const serial = serialOf('TRN44')
  const facts = tarnFacts({ serial, build, loaderVersion: loader, batteryPercent })
  return { facts, package: id, keepData: true }
}

function phoneOrTablet(next: () => number, kind: number, serialOf: Serial): Drawn {
  const going = OTHERS[Math.floor(kind * OTHERS.length)]
  if (going === undefined) throw new Error('no kind of run')
  const batteryPercent = 70 + Math.floor(next() * 30)
  const serial = serialOf(going.from.startsWith('fen') ? 'OST11' : 'COR4N')
  const facts = factsOn(shelvedNamed(going.from), { serial, batteryPercent, ...going.more })
  return { facts, package: going.to, keepData: going.keepData }
}

function runsFrom(
  now: number,
  { count, seed: first }: { readonly count: number; readonly seed: number },
  draw: (next: () => number, kind: number, serialOf: Serial) => Drawn,
): readonly Past[] {
  return Array.from({ length: count }, (_, index): Past => {
    const seed = first + index
    const next = chances(seed)
    const kind = next()
    const cable = CABLES[Math.floor(next() * CABLES.length)] ?? 'A'
    const serialOf: Serial = (prefix) =>
      `${prefix}${String(20_000 + seed * 7)}${(seed * 37).toString(16).toUpperCase()}`
    const slow = cable === 'B' ? 0.85 + next() * 0.15 : next() * 0.8
    const started = now - Math.round((DAYS - (index * (DAYS - 2)) / count) * DAY_MS)
    const drawn = draw(next, kind, serialOf)
    return {
      seed,
      id: idFor(`run ${seed}`),
      run: pastRun({
        seed,
        ...drawn,
        faults: faultsOf(cable, next),
        pick: Math.round(slow * 1000) / 1000,
      }),
      slip: null,
      port: PORTS[cable] ?? 'P1',
      cable,
      by: BY[Math.floor(next() * BY.length)] ?? 'Tavi',
      startedAt: started - (started % 60_000),
      putAway: true,
    }
  })
}

/** Cable E loses a device in a third of its runs; the others hardly ever. */
function faultsOf(cable: string, next: () => number): readonly Fault[] {
  const often = cable === 'E' ? 0.34 : 0.03
  if (next() >= often) return []
  return [{ piece: 1 + Math.floor(next() * PIECES), kind: 'cable' }]
}
