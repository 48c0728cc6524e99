/** The computing core: judging a large shelf, rehearsing the lead plan and a phone's long one with every cut. */
import {
  catalogueOf,
  firstReason,
  makePlan,
  rehearseCuts,
  routesTo,
  sortBuilds,
} from '@plain-slate/core'
import { case0417 } from '../../packages/core/src/testing/cases.ts'
import { alder, benchOf, caseOf, packageOf } from '../../packages/core/src/testing/families.ts'
import {
  archived,
  loader7,
  onDevice,
  pack,
  proven,
} from '../../packages/core/src/testing/packages.ts'
import { worldOf } from '../../packages/core/src/route/world.ts'
import { device0417, nature, plan0417 } from '../../packages/core/src/testing/twins.ts'
import { chances } from '../../packages/core/src/units/chances.ts'
import type { Row } from './row.ts'
import { alternating, spread, timed } from './timed.ts'

const MANIFESTS = 10_000
const LARGE = 100_000
const MODELS = ['BRAK-H1', 'BRAK-H2', 'BRAK-H2K']

/** Back a release with everything wiped, its images in small pieces: some sixty steps through both writing modes. */
function longPlan() {
  const family = { ...alder, pieceMiB: 100 }
  const of = (build: string, release: number, patchDate: string) =>
    packageOf(family, { model: 'CORV-4N', board: 'B2', build, release, patchDate, generation: 2 })
  const bench = benchOf({ family, on: of('20-2632.0-HO', 20, '2026-07-01') })
  const aim = of('19-2620.1-HO', 19, '2026-05-01')
  const at = caseOf(bench, aim, { intent: 'downgrade', keepData: false })
  const made = makePlan({ at, mode: bench.device.mode, permission: true })
  if (!made.ok) throw new Error(`no plan: ${JSON.stringify(made.refusal)}`)
  const images = catalogueOf([...bench.shelf, aim])
  return { plan: made.value, device: bench.device, nature: { ...bench.nature, catalogue: images } }
}

const PACKAGES = 500
/** Every so many is an increment on the build before it; every so many wants the newer loader. */
const INCREMENT_EVERY = 17
const LOADER_EVERY = 4
const AIMS = 30
const COUNTER = 'ABCDEFGHJKLMNPRSTVWX'

/** The lead device before a shelf of builds one after the other, and the aims: the newest of them. */
function manyRoutes() {
  const { shelved: _, ...at } = case0417()
  const name = (index: number) =>
    `H2.1${COUNTER[Math.floor(index / COUNTER.length)]}${COUNTER[index % COUNTER.length]}.r4`
  const builds = Array.from({ length: PACKAGES }, (_one, index) => {
    const build = name(index % (COUNTER.length * COUNTER.length))
    const asks = index % LOADER_EVERY === 0 ? { minLoader: 7 } : {}
    const full = archived(pack({ build, id: `p${index}`, release: 5, requires: asks }))
    if (index === 0 || index % INCREMENT_EVERY !== 0) return proven(full)
    const requires = { ...asks, exactBuild: name(index - 1) }
    return proven({ ...full, kind: 'incremental', requires })
  })
  const shelf = [proven(loader7), proven(onDevice), ...builds]
  const aims = builds.slice(-AIMS).map(({ key }) => key)
  return { start: { at: { ...at, shelf }, mode: 'normal', permission: true }, aims }
}

const IDS = 100_000
const two = (n: number) => String(n).padStart(2, '0')
/** Ids of phones, in a seeded random order. */
function manyIds(): readonly string[] {
  const random = chances(2026)
  const whole = (most: number) => Math.floor(random() * most)
  return Array.from(
    { length: IDS },
    () => `${10 + whole(80)}-${two(20 + whole(8))}${two(1 + whole(52))}.${whole(10)}-HO`,
  )
}

/** Builds one after the other, each whole and as a step from the one before, on the card or by parts. */
const CHAIN = 165
const NEWEST = 15

/** Every build can be come to from every older one: all of them help, and the newest are the aims. */
function manyMoves() {
  const { shelved: _, ...at } = case0417()
  const nameOf = (index: number) =>
    `H2.1${COUNTER[Math.floor(index / COUNTER.length)]}${COUNTER[index % COUNTER.length]}.r4`
  const builds = Array.from({ length: CHAIN }, (_one, index) => {
    const build = nameOf(index)
    const asks = index % LOADER_EVERY === 0 ? { minLoader: 7 } : {}
    const more = { build, release: 5, requires: asks }
    const whole = archived(pack({ ...more, id: `whole ${index}` }))
    const step = archived(pack({ ...more, id: `step ${index}`, kind: 'incremental' }))
    const requires = { ...asks, exactBuild: nameOf(index - 1) }
    return index === 0 ? [proven(whole)] : [proven(whole), proven({ ...step, requires })]
  })
  const shelf = [proven(onDevice), proven(loader7), ...builds.flat()]
  const start = { at: { ...at, shelf }, mode: 'normal', permission: true }
  const aims = builds.slice(-NEWEST).flatMap((both) => both.map(({ key }) => key))
  const world = worldOf({ start, isAim: ({ key }) => aims.includes(key) })
  return { start, aims, moves: new Set([...world.helpers, ...world.aims]).size }
}

/** Packages for three models and two boards in turn. */
const manifestsOf = (count: number) =>
  Array.from({ length: count }, (_, index) => {
    const model = MODELS[index % MODELS.length] ?? ''
    const boards = [index % 2 === 0 ? 'r4' : 'r5']
    const target = { model, boards, chipset: 'Slate 2', storage: [32] }
    return proven(pack({ build: 'H2.104.r4', id: `p${index}`, targets: [target] }))
  })

export async function machineRoom(): Promise<readonly Row[]> {
  const large = manifestsOf(LARGE)
  const shelf = large.slice(0, MANIFESTS)
  const at = case0417()
  const judged = (of: typeof large) => () => of.map((shelved) => firstReason({ ...at, shelved }))
  const [judging, larger] = await alternating([judged(shelf), judged(large)])
  if (judging === undefined || larger === undefined) throw new Error('nothing was timed')
  const plan = plan0417()
  const cuts = await timed(() => rehearseCuts(nature(), device0417(), plan))
  const phone = longPlan()
  const long = await timed(() => rehearseCuts(phone.nature, phone.device, phone.plan))
  const many = manyRoutes()
  const found = await timed(() => routesTo(many))
  const ids = manyIds()
  const [sorting, strings] = await alternating([
    () => sortBuilds(alder.build, ids),
    () => [...ids].sort(),
  ])
  if (sorting === undefined || strings === undefined) throw new Error('nothing was timed')
  const wide = manyMoves()
  const front = await timed(() => routesTo(wide))
  return [
    {
      what: `${routesTo(many).routes.length} routes to ${AIMS} aims on a shelf of ${PACKAGES} packages for one device`,
      measured: `${found.median.toFixed(0)} ms (${spread(found)})`,
      limit: 'aim at most 250 ms',
    },
    {
      what: `${ids.length.toLocaleString('en')} build ids read and put in order, against sorting their strings`,
      measured: `${(sorting.median / strings.median).toFixed(1)} times (strings ${spread(strings)})`,
      limit: 'aim at most 3 times',
    },
    {
      what: `${routesTo(wide).routes.length} routes to ${wide.aims.length} aims over ${wide.moves} moves that help`,
      measured: `${front.median.toFixed(0)} ms (${spread(front)})`,
      limit: 'aim at most 250 ms',
    },
    {
      what: `${MANIFESTS.toLocaleString('en')} manifests judged to verdict and first reason`,
      measured: `${judging.median.toFixed(0)} ms (${spread(judging)})`,
      limit: 'aim at most 60 ms',
    },
    {
      what: `${LARGE.toLocaleString('en')} of them, against ${MANIFESTS.toLocaleString('en')}`,
      measured: `${(larger.median / judging.median).toFixed(1)} times (${spread(larger)})`,
      limit: `aim near ${LARGE / MANIFESTS} times`,
    },
    {
      what: 'the lead plan rehearsed with every cut and its way out',
      measured: `${cuts.median.toFixed(0)} ms (${spread(cuts)})`,
      limit: 'aim at most 150 ms',
    },
    {
      what: `a phone’s plan of ${phone.plan.steps.length} steps, wiped, in two writing modes, with every cut`,
      measured: `${long.median.toFixed(0)} ms (${spread(long)})`,
      limit: 'aim at most 400 ms',
    },
  ]
}
