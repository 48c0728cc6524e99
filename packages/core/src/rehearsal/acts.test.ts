/**
 * What is done without a package comes out of the search as any move does: the lock opened and closed again, an update
 * of its own ended, a reset last. Each with the declared input that moves it, and one that does not.
 */
import { describe, expect, it } from 'vitest'
import type { Family } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { HouseRules } from '../match/house.ts'
import { USUAL_HOUSE } from '../match/house.ts'
import type { Unheld } from '../match/rule.ts'
import { fold } from '../plan/folds.ts'
import { isPack, moveName, movesOf, routeName } from '../plan/moves.ts'
import { orderOf } from '../plan/order.ts'
import { planOf } from '../plan/plan.ts'
import { keepsPromise, rehearse } from './rehearse.ts'
import type { Bench } from '../testing/families.ts'
import { alder, benchOf, caseOf, fen, packageOf } from '../testing/families.ts'
import { onTablet, open as here, tabletBuild } from '../testing/judged.ts'
import type { DeviceModel } from '../twin/state.ts'
import { factsOf } from '../twin/told.ts'
import { obstaclesOf } from '../route/obstacles.ts'
import { routesTo } from '../route/route.ts'

const next = packageOf(alder, {
  model: 'CORV-5N',
  board: 'C',
  build: '20-2638.0-HO',
  release: 20,
  patchDate: '2026-10-01',
})
const keeping = (family: Family): Family => ({
  ...family,
  installs: [],
  lock: { ...family.lock, keeps: ['main'] },
})

type More = Partial<Unheld> & { readonly school?: Partial<HouseRules> }
function startOf(bench: Bench, { school, ...more }: More = {}) {
  const [aim] = bench.shelf
  if (aim === undefined) throw new Error('an empty shelf')
  const house = { ...USUAL_HOUSE, ...school }
  const { shelved: _, ...at } = caseOf(bench, aim, { keepData: false, house, ...more })
  return { at, mode: bench.device.mode, permission: bench.device.permission }
}
/** Routes by what is done on them, each once. */
const said = (bench: Bench, more: More = {}) => [
  ...new Set(
    routesTo({ start: startOf(bench, more) }).routes.map(({ moves }) =>
      moves.map((move) => (isPack(move) ? move.way : moveName(move))).join(', '),
    ),
  ),
]
/** Why the best route's steps stand as they do. */
function orderFor(bench: Bench, more: More = {}): readonly string[] {
  const start = startOf(bench, more)
  const plan = planOf(start, routesTo({ start }).routes[0]?.moves ?? [])
  if (!plan.ok) throw new Error(JSON.stringify(plan.refusal))
  return orderOf(plan.value, bench.family).map(({ code }) => code)
}
/** Every route rehearsed: whether its end is what its plan promises. */
function reaches(bench: Bench, more: More = {}): boolean {
  const start = startOf(bench, more)
  return routesTo({ start }).routes.every(({ moves }) => {
    const plan = planOf(start, moves)
    if (!plan.ok) throw new Error(JSON.stringify(plan.refusal))
    const { device } = rehearse(bench.nature, bench.device, plan.value).end
    const { fates } = fold(plan.value, start.at)
    return keepsPromise(plan.value, fates, device, factsOf(bench.nature, device))
  })
}

describe('a phone whose closed lock lets nobody write its main part', () => {
  const bench = (family: Family, more: Partial<DeviceModel> = {}) =>
    benchOf({ family, on: here, shelf: [next], more })

  it('is opened, written and closed again, or left open as the house has it', () => {
    const kept = bench(keeping(alder))
    expect(said(kept)).toEqual(['do open, images, do close'])
    expect(reaches(kept)).toBe(true)
    expect(said(kept, { school: { relock: 'leave' } })).toEqual(['do open, images'])
    expect(orderFor(kept)).toEqual(['open-first', 'parts', 'restarts', 'lock-last'])
    expect(orderFor(kept, { school: { relock: 'leave' } })).not.toContain('lock-last')
    expect(said(kept, { school: { cards: 'in' } })).toEqual(['do open, images, do close'])
  })

  it('is not opened where nothing asks for it, or where it is open already', () => {
    const plain = bench({ ...alder, installs: [] })
    expect(said(plain)).toEqual(['images'])
    expect(said(bench(keeping(alder), { lock: 'open' }))).toEqual(['images'])
  })

  it('is walled off where its carrier never lets it be opened', () => {
    const own = bench(keeping(alder))
    const { fused } = own.device
    const sold = { ...own, device: { ...own.device, fused: { ...fused, carrier: 'S' } } }
    expect(said(sold)).toEqual([])
    expect(obstaclesOf(startOf(sold))).toEqual([])
  })

  it('is opened for an owner whose data need not survive, and for no other', () => {
    const kept = bench(keeping(alder))
    expect(said(kept, { keepData: true })).toEqual([])
    const [blocked] = obstaclesOf(startOf(kept, { keepData: true }))
    expect(blocked?.obstacles.map(({ finding }) => finding.code)).toEqual([
      'fit.act.data.opening-loses',
      /* What is gone by then is not lost once more by closing it. */
    ])
    const mild = {
      ...keeping(alder),
      lock: { ...keeping(alder).lock, opening: 'keeps', closing: [] } as Family['lock'],
    }
    expect(said(bench(mild), { keepData: true })).toEqual(['do open, images, do close'])
  })
})

describe('a lock that its owner wants closed', () => {
  const bench = (more: Partial<DeviceModel> = {}) =>
    benchOf({ family: { ...alder, installs: [] }, on: next, more: { lock: 'open', ...more } })

  it('is closed after what it is closed over, though nothing of that is written', () => {
    expect(said(bench(), { intent: 'relock' })).toEqual(['images, do close'])
    expect(reaches(bench(), { intent: 'relock' })).toBe(true)
    expect(said(bench(), { intent: 'restore' })).not.toContain('images, do close')
  })

  it('stays open where closing takes what must survive; what would close it is named', () => {
    const start = startOf(
      benchOf({ family: alder, on: here, shelf: [next], more: { lock: 'open' } }),
      {
        intent: 'relock',
        keepData: true,
      },
    )
    const { routes } = routesTo({ start })
    expect(routes.map(({ misses }) => misses)).toEqual(routes.map(() => ['lock']))
    const [blocked] = obstaclesOf(start, routes)
    expect(blocked?.obstacles.map(({ finding }) => finding.remedy)).toEqual([
      { kind: 'ask', topic: 'survive' },
    ])
  })
})

describe('a tablet that merges an update of its own', () => {
  const radioless = (one: Manifest): Manifest => ({
    ...one,
    images: one.images.filter(({ role }) => role !== 'modem'),
  })
  const [on, to] = [onTablet, tabletBuild('FEN-26.21B-S')].map(radioless) as [Manifest, Manifest]
  const bench = (merge: 'none' | 'staged' | 'merging', family = fen) =>
    benchOf({ family, on, shelf: [to], more: { merge } })
  const first = (one: Bench) => new Set(said(one).map((route) => route.split(', ')[0]))

  it('is waited for, or has it taken back, where a write would destroy the data', () => {
    expect(first(bench('merging'))).toEqual(new Set(['do wait']))
    expect(first(bench('staged'))).toEqual(new Set(['do take-back']))
    expect(first(bench('none'))).not.toContain('do wait')
    const hardy = { ...fen, merge: { destroyedBy: [] } }
    expect(first(bench('merging', hardy))).not.toContain('do wait')
  })
})

describe('a reset by hand after a write', () => {
  const bench = benchOf({ family: { ...alder, installs: [] }, on: here, shelf: [next] })

  it('comes last in a house that always does one, where data need not survive', () => {
    const always = { school: { reset: 'always' } } as const
    expect(said(bench, always)).toEqual(['images, do reset'])
    expect(reaches(bench, always)).toBe(true)
    expect(said(bench, { ...always, keepData: true })).toEqual(['images'])
    expect(orderFor(bench, always)).toContain('reset-last')
    expect(orderFor(bench)).not.toContain('reset-last')
    expect(said(bench)).toEqual(['images'])
    /* What is wiped on the way is not wiped twice. */
    expect(said(bench, { school: { reset: 'always', data: 'new' } })).toEqual(['images'])
  })
})

describe('on the way down', () => {
  const older = packageOf(alder, {
    model: 'CORV-5N',
    board: 'C',
    build: '20-2630.0-HO',
    release: 20,
    patchDate: '2026-01-01',
  })
  const family = { ...alder, installs: [], dataKeys: { hangOn: [], tracksBack: [] } }
  const bench = benchOf({ family, on: here, shelf: [older] })
  const fates = (more: More) => {
    const start = startOf(bench, { intent: 'downgrade', ...more })
    const [route] = routesTo({ start }).routes
    const plan = planOf(start, route?.moves ?? [])
    if (!plan.ok) throw new Error(JSON.stringify(plan.refusal))
    return [...new Set(fold(plan.value, start.at).fates.map(({ fate }) => fate))]
  }

  it('data that would open are wiped first in a house that does so, and left in one that tries', () => {
    expect(fates({ school: { downgrade: 'first' } })).toEqual(['wiped'])
    expect(fates({ school: { downgrade: 'try' } })).toEqual(['kept'])
    expect(fates({ school: { downgrade: 'first' }, intent: 'restore' })).toEqual(['kept'])
    expect(fates({ school: { downgrade: 'first' }, keepData: true })).toEqual(['kept'])
  })
})

describe('the name of a route', () => {
  it('is read back as its moves, whatever is done on it; what ends in no package is no route', () => {
    const moves = [{ act: 'open' }, { pack: 'a by b', way: 'images' }, { act: 'close' }] as const
    expect(movesOf(routeName(moves))).toEqual(moves)
    expect(movesOf('do open')).toBeUndefined()
    expect(movesOf('do dance')).toBeUndefined()
  })
})
