/** A charge that a plan calls enough is enough on the twin: whatever is installed, whatever the board is known to drain. */
import { describe, expect, it } from 'vitest'
import type { Manifest } from '../firmware/manifest.ts'
import type { PlanWay } from '../plan/install.ts'
import { drawnBy, fold } from '../plan/folds.ts'
import { restDraws } from '../plan/rest.ts'
import type { Bench, OnBench } from '../testing/families.ts'
import { alder, benchOf, caseOf, fen, packageOf } from '../testing/families.ts'
import { judge } from '../match/judge.ts'
import { agedIn } from '../testing/claims.ts'
import { saysOf } from '../testing/judged.ts'
import { planned, run } from '../testing/installs.ts'
import { archived } from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'

/** What it needs with no margin at all, in whole percent. */
function needsAlone(bench: Bench, aim: Manifest, way: PlanWay): number {
  const at = caseOf(bench, aim, { keepData: true, intent: 'update' })
  const house = { ...at.house, batteryMargin: 0, batteryFloor: null }
  return fold(planned(bench, aim, way), { ...at, house }).needs
}
/** How its run ends when it begins with so much. */
function endsWith(bench: Bench, aim: Manifest, way: PlanWay, battery: number) {
  const { state } = run(
    { ...bench, device: { ...bench.device, battery } },
    planned(bench, aim, way),
  )
  return state.phase.kind
}

const whole = (more: Partial<Manifest>, family = fen): Manifest => {
  const made = packageOf(family, { generation: 4, ...more } as Parameters<typeof packageOf>[1])
  return archived({ ...made, images: made.images.filter(({ role }) => role !== 'modem') })
}
const tablet = { model: 'OSTR-11A', board: 'g1', release: 8, track: 'S' }
const handheld = { model: 'BRAK-H2K', board: 'r4' }
const asking = <One extends typeof fen>(family: One, leastPercent: number): One => ({
  ...family,
  installs: family.installs.map((one) => ({ ...one, leastPercent })),
})

describe('the charge that an install asks for', () => {
  const cases: readonly [string, (least: number) => Bench, Manifest, PlanWay][] = [
    [
      'a package pushed to a tablet',
      (least) =>
        benchOf({
          family: asking(fen, least),
          on: whole({ ...tablet, build: 'FEN-26.20B-S', patchDate: '2026-09-01' }),
          shelf: [whole({ ...tablet, build: 'FEN-26.21B-S', patchDate: '2026-10-01' })],
        }),
      whole({ ...tablet, build: 'FEN-26.21B-S', patchDate: '2026-10-01' }),
      'push',
    ],
    [
      'a package on a handheld’s card',
      (least) =>
        benchOf({
          family: asking(tarn, least),
          on: archived(packageOf(tarn, { ...handheld, build: 'H2.0ZC.r4', release: 4 })),
          shelf: [archived(packageOf(tarn, { ...handheld, build: 'H2.104.r4', release: 5 }))],
        }),
      archived(packageOf(tarn, { ...handheld, build: 'H2.104.r4', release: 5 })),
      'card',
    ],
  ]

  it.each(cases)('of %s is there when it starts, and no more is asked', (_, of, aim, way) => {
    for (const least of [0, 20, 60]) {
      const bench = of(least)
      const needs = needsAlone(bench, aim, way)
      expect(needs).toBeGreaterThanOrEqual(least)
      expect(endsWith(bench, aim, way, needs), `${needs} %`).toBe('ended')
      if (least > 0) expect(endsWith(bench, aim, way, least - 1)).not.toBe('ended')
    }
  })

  it.each(cases)(
    'of %s is part of what the rest needs, until it was started',
    (_, of, aim, way) => {
      const bench = of(60)
      const plan = planned(bench, aim, way)
      const starts = plan.steps.findIndex(({ kind }) => kind === 'push' || kind === 'install')
      expect(restDraws(bench.nature.family, plan, 1)).toBeGreaterThanOrEqual(60)
      expect(restDraws(bench.nature.family, plan, starts + 2)).toBeLessThan(60)
      expect(restDraws(bench.nature.family, plan, 1)).toBeLessThanOrEqual(
        needsAlone(bench, aim, way),
      )
    },
  )
})

describe('a board that is known to drain', () => {
  const model = { model: 'CORV-4N', board: 'B1', generation: 3, requires: { minLoader: 0 } }
  const on = packageOf(alder, { ...model, build: '20-2634.0-HO', release: 20 })
  const next = packageOf(alder, { ...model, build: '20-2638.0-HO', release: 20 })
  const phone = (drain: number, more: Partial<OnBench> = {}) => {
    const family = {
      ...alder,
      knownFaults: alder.knownFaults.map((one) => ({ ...one, drain })),
    }
    return benchOf({ family, on, shelf: [next], ...more })
  }

  it('is asked for as much more as that, and that is enough', () => {
    const needs = (drain: number) => needsAlone(phone(drain), next, 'images')
    expect(needs(1.4)).toBeGreaterThan(needs(1))
    expect(Math.abs(needs(3) - 3 * needs(1))).toBeLessThanOrEqual(3)
    expect(endsWith(phone(3), next, 'images', needs(3))).toBe('ended')
    const sound = { ...model, board: 'B2' }
    const other = (build: string) => packageOf(alder, { ...sound, build, release: 20 })
    const bench = (drain: number) =>
      phone(drain, { on: other('20-2634.0-HO'), shelf: [other('20-2638.0-HO')] })
    const least = (drain: number) => needsAlone(bench(drain), other('20-2638.0-HO'), 'images')
    expect(least(3)).toBe(least(1))
  })
})

describe('a cell that is called aged', () => {
  const on = whole({ ...tablet, build: 'FEN-26.20B-S', patchDate: '2026-09-01' })
  const next = whole({ ...tablet, build: 'FEN-26.21B-S', patchDate: '2026-10-01' })
  const needs = (agedDrains: number | undefined, aged: boolean): number => {
    const { agedDrains: _, ...rest } = fen
    const family = agedDrains === undefined ? rest : { ...rest, agedDrains }
    const bench = benchOf({ family, on, shelf: [next] })
    const at = caseOf(bench, next, { keepData: true, intent: 'update' })
    const house = { ...at.house, batteryMargin: 0, batteryFloor: null }
    const made = planned(bench, next, 'images')
    return fold(made, { ...(aged ? agedIn(at) : at), house }).needs
  }

  it('is asked for as much more as its family says of such ones, and nothing is refused for its age', () => {
    expect(needs(2, true)).toBeGreaterThan(needs(1, true))
    expect(Math.abs(needs(3, true) - 3 * needs(1, true))).toBeLessThanOrEqual(3)
    expect(needs(3, false)).toBe(needs(1, false))
    expect(needs(undefined, true)).toBe(needs(undefined, false))
    const at = caseOf(benchOf({ family: fen, on, shelf: [next] }), next)
    expect(saysOf('state.cell', agedIn(at))).toBe(undefined)
    /* Said after a plan was taken, it counts for that plan too. */
    const bench = benchOf({ family: fen, on, shelf: [next] })
    const taken = planned(bench, next, 'images')
    expect(drawnBy(taken, at)).toBe(fold(taken, at).draws)
    expect(drawnBy(taken, agedIn(at))).toBe(fold(taken, agedIn(at)).draws)
    expect(drawnBy(taken, agedIn(at))).toBeGreaterThan(drawnBy(taken, at))
    const [alone, aged] = [at, agedIn(at)].map((one) => {
      const found = judge(one).findings.find(({ rule }) => rule === 'state.battery')
      return Number(found?.facts['needed'])
    })
    expect(aged).toBeGreaterThan(alone ?? 0)
  })
})
