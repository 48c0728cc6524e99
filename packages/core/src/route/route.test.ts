/** What a master technician says of the ways to a build, each as a route that is found or is not. */
import { describe, expect, it } from 'vitest'
import { identify } from '../device/identity.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { USUAL_HOUSE } from '../match/house.ts'
import type { Unheld } from '../match/rule.ts'
import { isPack, moveName } from '../plan/moves.ts'
import { planOf } from '../plan/plan.ts'
import type { DeviceState } from '../plan/state.ts'
import { case0417 } from '../testing/cases.ts'
import { reading, readings0417 } from '../testing/devices.ts'
import { alder, benchOf, caseOf, fen, packageOf } from '../testing/families.ts'
import {
  archived,
  between,
  loader7,
  newest,
  onDevice,
  pack,
  proven,
  shelf,
} from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import type { Route } from './route.ts'
import { routesTo } from './route.ts'
import { backOf } from './back.ts'
import { obstaclesOf } from './obstacles.ts'

const { shelved: _, ...lead } = case0417()
const from = (more: Partial<Unheld> = {}): DeviceState => ({
  at: { ...lead, ...more },
  mode: 'normal',
  permission: true,
})
const names = (routes: readonly Route[]) =>
  routes.map(({ moves, shelved }) => `${shelved.manifest.title} of ${moves.length}`)
const ways = (start: DeviceState) =>
  routesTo({ start }).routes.map(({ moves }) =>
    moves.map((move) => {
      if (!isPack(move)) return moveName(move)
      const { pack: key, way } = move
      const title = start.at.shelf.find((one) => one.key === key)?.manifest.title
      return way === 'images' ? title : `${title} by ${way}`
    }),
  )
const increment = (next: Manifest, base: string, more: Partial<Manifest> = {}): Manifest =>
  archived({
    ...next,
    id: `${next.build} from ${base}`,
    title: `${next.build} from ${base}`,
    kind: 'incremental',
    ...more,
    requires: { exactBuild: base, ...more.requires },
  })
/** Next year's build, which is known as an increment on the newest alone. */
const later = pack({
  build: 'H2.108.r4',
  release: 5,
  patchDate: '2026-11-01',
  requires: {},
  archives: [{ file: 'H2.108.r4.tar' }],
})

describe('the routes of slip 0417', () => {
  it('raise the loader first where the build asks for it, and nowhere else', () => {
    expect(ways(from())).toEqual([['loader 7', 'H2.104.r4'], ['H2.0ZP.r4']])
  })

  it('fit with their marks where the part comes first, though the package alone fits only if', () => {
    const [best] = routesTo({ start: from() }).routes
    const loader = best?.findings.find(({ rule }) => rule === 'state.loader.least' && true)
    expect(loader).toMatchObject({ verdict: 'fits' })
    const marked = best?.findings.filter(({ marks }) => marks.length > 0)
    expect(marked?.flatMap(({ marks }) => marks.map(({ kind }) => kind))).toEqual(
      expect.arrayContaining(['risky', 'irreversible']),
    )
  })

  it('follow what the package asks: with loader 6 enough nothing comes first', () => {
    const easy = proven({ ...newest, requires: { minLoader: 6 } })
    const others = shelf.filter(({ key }) => key !== easy.key)
    expect(ways(from({ shelf: [...others, easy] }))[0]).toEqual(['H2.104.r4'])
  })

  it('go no way where no part raises the loader far enough, or the part is for another board', () => {
    const without = shelf.filter(({ manifest }) => manifest.id !== loader7.id)
    const [target] = loader7.targets
    const r5 = proven({ ...loader7, targets: [{ ...target, boards: ['r5'] } as never] })
    for (const known of [without, [...without, r5]])
      expect(ways(from({ shelf: known }))).toEqual([['H2.0ZP.r4']])
  })

  it('go on by an increment once the build is on it that it wants: three moves', () => {
    const next = proven(increment(later, newest.build))
    const found = ways(from({ shelf: [...shelf, next] }))
    expect(found[0]).toEqual(['loader 7', 'H2.104.r4', 'H2.108.r4 from H2.104.r4 by card'])
    const start = from({ shelf: [...shelf, next] })
    const [best] = routesTo({ start }).routes
    const plan = planOf(start, best?.moves ?? [])
    if (!plan.ok) throw new Error(JSON.stringify(plan.refusal))
    /* The loader's write and the build's share one start; the increment's has its own. */
    expect(plan.value.steps.filter(({ kind }) => kind === 'first-start')).toHaveLength(2)
    expect(plan.value.steps.filter(({ kind }) => kind === 'ready').length).toBeLessThanOrEqual(4)
    expect(plan.value.expected).toMatchObject({ build: later.build, loaderVersion: 7 })
  })

  it('go by two increments after a loader', () => {
    const first = increment({ ...newest, requires: {} }, 'H2.0ZC.r4', {
      requires: { minLoader: 7, exactBuild: 'H2.0ZC.r4' },
    })
    const second = increment(later, newest.build)
    const known = [loader7, first, second].map(proven)
    expect(ways(from({ shelf: known }))[0]).toEqual([
      'loader 7',
      'H2.104.r4 from H2.0ZC.r4 by card',
      'H2.108.r4 from H2.104.r4 by card',
    ])
  })

  it('want the releases between, one after the other, where a package says so', () => {
    const far = proven({
      ...pack({ ...later, release: 6, id: 'far' }),
      requires: { minRelease: 5 },
    })
    const found = ways(from({ shelf: [...shelf, far] }))
    expect(found[0]).toEqual(['loader 7', 'H2.104.r4', 'H2.108.r4'])
  })

  it('end where a floor that the first of them raises would shut the second out', () => {
    const raises = { ...newest, generation: 8 }
    const next = proven(increment(later, newest.build, { generation: 7 }))
    const others = shelf.filter(({ key }) => key !== proven(newest).key)
    const found = routesTo({ start: from({ shelf: [...others, proven(raises), next] }) }).routes
    expect(names(found)).not.toContain('H2.108.r4 from H2.104.r4 of 3')
    const same = routesTo({ start: from({ shelf: [...shelf, next] }) }).routes
    expect(names(same)).toContain('H2.108.r4 from H2.104.r4 of 3')
  })

  it('are none where what kills is not settled', () => {
    const identity = identify(tarn, readings0417([reading('board', 'r5', 'settings', 9000)]))
    expect(ways(from({ identity: identify(tarn, []) }))).toEqual([])
    expect(ways(from({ identity })).length).toBeGreaterThanOrEqual(0)
  })
})

describe('a phone', () => {
  const build = (name: string, more: Partial<Manifest> = {}) =>
    archived(packageOf(alder, { model: 'CORV-5N', board: 'C', build: name, release: 20, ...more }))
  const on = build('20-2634.0-HO')
  const next = build('20-2640.0-HO', { patchDate: '2026-10-01' })
  const bench = benchOf({ family: alder, on, shelf: [next] })
  const start = (more: Partial<Unheld> = {}): DeviceState => {
    const { shelved: aim, ...at } = caseOf(bench, next, more)
    return {
      at: { ...at, shelf: at.shelf.filter(({ key }) => key === aim.key) },
      mode: 'system',
      permission: true,
    }
  }

  it('is offered both ways of one build, with what each costs; the house says which comes first', () => {
    const both = routesTo({ start: start() }).routes
    expect(ways(start())).toEqual([['20-2640.0-HO'], ['20-2640.0-HO by storage']])
    const [parts, rescue] = both
    if (parts === undefined || rescue === undefined) throw new Error('not two')
    /* By parts the loader, kept once, is under way; the rescue writes the whole of it. */
    expect([parts.cost.packages, rescue.cost.packages]).toEqual([1, 1])
    expect(parts.cost.minutes).not.toBe(rescue.cost.minutes)
    const house = { ...USUAL_HOUSE, way: 'install' } as const
    expect(ways(start({ house }))).toEqual([['20-2640.0-HO by storage'], ['20-2640.0-HO']])
  })

  it('is offered no way twice that is worse in everything', () => {
    for (const { cost } of routesTo({ start: start() }).routes) expect(cost.data).toBe(0)
  })
})

describe('a tablet on trial software', () => {
  const build = (name: string, track: string, more: Partial<Manifest> = {}) =>
    archived({
      ...packageOf(fen, {
        model: 'OSTR-11A',
        board: 'g1',
        build: name,
        release: 8,
        track,
        ...more,
      }),
      images: packageOf(fen, {
        model: 'OSTR-11A',
        board: 'g1',
        build: name,
        release: 8,
      }).images.filter(({ role }) => role !== 'modem'),
    })
  const trial = build('FEN-26.21A-T', 'T')
  const stable = build('FEN-26.21B-S', 'S', { patchDate: '2026-10-01' })
  const bench = benchOf({ family: fen, on: trial, shelf: [stable] })
  const start = (keepData: boolean): DeviceState => {
    const { shelved: aim, ...at } = caseOf(bench, stable, { keepData, intent: 'update' })
    return {
      at: { ...at, shelf: at.shelf.filter(({ key }) => key === aim.key) },
      mode: 'system',
      permission: true,
    }
  }

  it('comes back to stable only from new', () => {
    expect(routesTo({ start: start(true) }).routes).toEqual([])
    const found = routesTo({ start: start(false) }).routes
    expect(found.length).toBeGreaterThan(0)
    expect(found.every(({ cost }) => cost.data === 2)).toBe(true)
  })
})

it('gives up at its limit and says so', () => {
  const next = proven(increment(later, newest.build))
  const start = from({ shelf: [...shelf, next] })
  expect(routesTo({ start }).limit).toBe(false)
  expect(routesTo({ start, limits: { most: 1 } })).toMatchObject({ limit: true })
})

describe('where no way is open', () => {
  it('says which reading would open one, and for how many packages the same does', () => {
    const identity = identify(
      tarn,
      readings0417().filter(({ fact }) => fact !== 'board'),
    )
    const start = from({ identity })
    expect(routesTo({ start }).routes).toEqual([])
    const [first, ...others] = obstaclesOf(start)
    expect(first?.obstacles.flatMap(({ finding }) => finding.missing)).toContain('board')
    /* Whatever else needs no less than that is told once. */
    const names = (one: typeof first) =>
      one?.obstacles.map(
        ({ finding, pack: key }) => `${finding.rule} ${finding.missing.join(' ') || key}`,
      )
    for (const other of others)
      expect(names(first)?.every((name) => names(other)?.includes(name))).toBe(false)
  })

  it('tells a chain by what its every move wants lifted', () => {
    const next = { ...proven(increment(later, newest.build)), state: 'published' } as const
    const lone = { ...proven(newest), manifest: { ...newest, channel: 'unreleased' } } as const
    const shelfOf = [proven(loader7), lone, next]
    const start = from({
      shelf: shelfOf,
      lines: new Map([['consent.preview', { topic: 'consent.preview', answer: 'yes', at: 1 }]]),
    })
    expect(routesTo({ start }).routes).toEqual([])
    const blocked = obstaclesOf(start)
    const [one] = blocked
    expect([one?.aim.key, one?.moves.length]).toEqual([next.key, 3])
    const refused = one?.obstacles.filter(({ finding }) => finding.verdict === 'does-not-fit')
    expect(refused?.map(({ finding }) => finding.overruled)).toEqual(['lead'])
  })

  it('says that the owner’s other wish would open one, where the data must survive and cannot', () => {
    const older = proven(pack({ build: 'H2.0XB.r4', release: 3, patchDate: '2026-01-01' }))
    const start = from({ shelf: [older], intent: 'downgrade' })
    expect(routesTo({ start }).routes).toEqual([])
    const [one] = obstaclesOf(start)
    expect(one?.obstacles.map(({ finding }) => [finding.rule, finding.remedy])).toEqual([
      ['promise.data', { kind: 'ask', topic: 'survive' }],
    ])
    expect(routesTo({ start: from({ ...start.at, keepData: false }) }).routes).toHaveLength(1)
  })

  it('keeps silent of what nobody may lift', () => {
    const identity = identify(tarn, readings0417([reading('floor', 9, 'link', 9000)]))
    expect(obstaclesOf(from({ identity }))).toEqual([])
  })

  it('has nothing to lift where a way is open', () => {
    const [open] = obstaclesOf(from())
    expect(open?.obstacles).toEqual([])
  })
})

describe('the way back of a route', () => {
  it('is there as long as what is put back opens the data', () => {
    const start = from()
    const [newer, same] = routesTo({ start }).routes
    if (newer === undefined || same === undefined) throw new Error('no routes')
    /* Within a release the data go on both ways; from the next one they do not come back. */
    expect(backOf(start, same)).toMatchObject({ data: 'kept', fetch: false })
    expect(backOf(start, newer)?.data).not.toBe('kept')
  })

  it('closes with a floor that rises past it, and is none without the package', () => {
    const raised = proven({ ...between, generation: 9 })
    const others = shelf.filter(({ key }) => key !== raised.key)
    const start = from({ shelf: [...others, raised] })
    const route = routesTo({ start, aims: [raised.key] }).routes[0]
    if (route === undefined) throw new Error('no route')
    expect(backOf(start, route)).toBeUndefined()
    const without = from({ shelf: shelf.filter(({ manifest }) => manifest.id !== onDevice.id) })
    const [same] = routesTo({ start: without, aims: [proven(between).key] }).routes
    expect(same && backOf(without, same)).toBeUndefined()
  })
})

describe('what a route misses of the wish', () => {
  const missed = (more: Partial<Unheld>) =>
    routesTo({ start: from(more) }).routes.map(({ shelved, misses }) => [
      shelved.manifest.title,
      ...misses,
    ])
  it('follows the intent', () => {
    expect(missed({})).toEqual([['H2.104.r4'], ['H2.0ZP.r4']])
    /* The same again is no update, and what was wished where it is to be as it was. */
    const again = { evidence: new Map(), shelf: [proven(onDevice)] }
    expect(missed(again)).toEqual([['H2.0ZC.r4', 'release']])
    expect(missed({ ...again, intent: 'restore' })).toEqual([['H2.0ZC.r4']])
    expect(missed({ intent: 'downgrade' }).map(([, one]) => one)).toEqual(['release', 'release'])
    const older = proven(pack({ build: 'H2.0XB.r4', release: 3, patchDate: '2026-01-01' }))
    const down = missed({ intent: 'downgrade', keepData: false, shelf: [...shelf, older] })
    expect(down[0]).toEqual(['H2.0XB.r4'])
    expect(missed({ intent: 'preview' }).every(([, one]) => one === 'release')).toBe(true)
  })
})
