/**
 * The book's half year: sixty runs on tarn handhelds, one every three days or so, on all cables. Cable B
 * is worn and slow, E drops now and then. Each comes from its number alone.
 */
import type { Fault } from '@plain-slate/core'
import { chances } from '@plain-slate/core'
import type { DemoName } from '../people.ts'
import { tarnFacts } from './devices.ts'
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

/** The runs, the oldest first; `now` is the demo's own. */
export function pastRuns(now: number): readonly Past[] {
  return Array.from({ length: PAST_RUNS }, (_, index): Past => {
    const seed = FIRST_SEED + index
    const next = chances(seed)
    const kind = KINDS[Math.floor(next() * KINDS.length)] ?? KINDS[0]
    if (kind === undefined) throw new Error('no kind of run')
    const cable = CABLES[Math.floor(next() * CABLES.length)] ?? 'A'
    const serial = `TRN44${String(20_000 + seed * 7)}${(seed * 37).toString(16).toUpperCase()}`
    const slow = cable === 'B' ? 0.85 + next() * 0.15 : next() * 0.8
    const started = now - Math.round((DAYS - (index * (DAYS - 2)) / PAST_RUNS) * DAY_MS)
    const facts = tarnFacts({
      serial,
      build: kind.build,
      loaderVersion: kind.loader,
      batteryPercent: 60 + Math.floor(next() * 40),
    })
    return {
      seed,
      id: idFor(`run ${seed}`),
      run: pastRun({
        seed,
        facts,
        package: kind.package,
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
