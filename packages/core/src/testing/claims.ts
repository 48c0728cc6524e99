/**
 * What is shown and comes of a family: every claim that a profile's fields may move, the cheapest first. For the
 * test that changes each field and looks what moved.
 */
import { distanceOf } from '../build/distance.ts'
import { readBuild } from '../build/grammar.ts'
import { placedSteps } from '../command/placed.ts'
import { lockChange } from '../effect/effect.ts'
import { isFrom } from '../family/builds.ts'
import { faultsUnder } from '../family/faults.ts'
import { familyTable } from '../family/layout.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { judge } from '../match/judge.ts'
import type { Case } from '../match/rule.ts'
import { waysTo } from '../modes/ways.ts'
import { fold } from '../plan/folds.ts'
import type { PlanWay } from '../plan/install.ts'
import { makePlan } from '../route/make-plan.ts'
import { rehearse } from '../rehearsal/rehearse.ts'
import type { Catalogue } from '../twin/images.ts'
import { startOf } from '../twin/start.ts'
import type { DeviceModel } from '../twin/state.ts'
import type { TwinInput } from '../twin/stepped.ts'
import { factsOf } from '../twin/told.ts'
import { step } from '../twin/twin.ts'
import { installing, plannedBy } from './claims-installs.ts'
import type { Bench } from './families.ts'
import { caseOf } from './families.ts'
import { variants } from './variants.ts'
import { HANDS } from './claims-hands.ts'
import { said } from './judged.ts'
import { SCALE } from './packages.ts'

/** A device on its bench, with the packages that are held against it. */
export type Scenery = { readonly bench: Bench; readonly aims: readonly Manifest[] }

/** Of a device of each row, used in each region: what the rule of emergency calls says. */
const toldOfRows = (bench: Bench, aim: Manifest) => {
  const { variants: rows } = bench.family
  const regions = [...new Set(rows.map(({ region }) => region))]
  return rows.flatMap(({ region, carrier }) =>
    regions.map((used) => {
      const fused = { ...bench.device.fused, region, carrier }
      const at = caseOf({ ...bench, device: { ...bench.device, fused } }, aim)
      return judge(said({ 'use.region': used }, at)).findings.filter(
        ({ rule }) => rule === 'promise.calls',
      )
    }),
  )
}

const DISK_BYTES = 1024 ** 3

/** Build ids as they are typed, right and wrong. */
const TYPED = [
  ...['H1.0ZC.r3', 'H2.0ZC.r4', 'H2.0ZC.r5', 'H2.OZC.r4', 'H2.105.r4'],
  ...['20-2638.0-HO', '20-2638.0-MS', '20-2638.0-EN', '2O-2638.O-HO'],
  ...['FEN-26.20B-S', 'FEN-26.20B-T', 'FEN-26.20O-S', 'FEN-25.26B-S', 'FEN-25.27B-S'],
  ...['20/2634.0 HO', '20/2634.0 MS', '20/2634.0 EN', '20-2653.0-HO'],
]

/** How far each of them is from the next. */
const distances = (grammar: Bench['family']['build']) => {
  const read = TYPED.flatMap((text) => {
    const one = readBuild(grammar, text)
    return one.ok ? [one.value] : []
  })
  return read.slice(1).map((one, index) => distanceOf(grammar, read[index] ?? one, one))
}

export const CLAIMS: Readonly<Record<string, (scenery: Scenery) => unknown>> = {
  'what it is called and looks like': ({ bench: { family } }) => [
    [family.id, family.version],
    family.maker,
    family.models,
    family.stores.map(({ id, name }) => [id, name]),
    family.modes.map(({ id, name, looks, confusedWith, charges }) => [
      id,
      name,
      looks,
      confusedWith,
      charges,
    ]),
    [family.permission.what, family.permission.steps, family.items, family.cell, family.keptOnce],
    [family.marks.map(({ id, says }) => [id, says]), family.drainPerMinute.idle],
  ],
  ...Object.fromEntries(
    Object.entries(HANDS).map(([name, claim]) => [name, ({ bench }: Scenery) => claim(bench)]),
  ),
  'where each fact is read, and how far it is trusted': ({ bench }) => bench.family.facts,
  'what its build ids mean, and their order': ({ bench: { family } }) => [
    TYPED.map((text) => readBuild(family.build, text)),
    distances(family.build),
    [family.build.order, family.build.alike, family.build.lookAlikes],
  ],
  'what it says in each mode': ({ bench: { family, nature, device } }) =>
    family.modes.map(({ id }) => factsOf(nature, { ...device, mode: id, marks: ['one'] })),
  'its layouts': ({ bench: { family } }) =>
    family.models.flatMap(({ code, boards, storages }) =>
      boards.flatMap((board) =>
        storages.map((storageGb) =>
          familyTable(family, { model: code, board, storageGb }, SCALE, DISK_BYTES),
        ),
      ),
    ),
  'the ways between its modes': ({ bench: { family } }) =>
    family.modes.flatMap((from) =>
      family.modes.map((to) => [true, false].map((given) => waysTo(family, from.id, to.id, given))),
    ),
  'which of its boards have a known fault': ({ bench: { family } }) =>
    family.models.flatMap(({ code: model, boards }) =>
      boards.map((board) => faultsUnder(family, { model, board }, () => TYPED)),
    ),
  'which builds ask for a key at their first start, and how': ({ bench: { family } }) => [
    family.goOn?.say,
    family.goOn?.seconds,
    TYPED.map((text) => family.goOn !== undefined && isFrom(family, text, family.goOn.from)),
  ],
  'what its lock does to data': ({ bench: { family } }) =>
    family.models.map(({ code }) =>
      (['open', 'closed'] as const).map((to) => lockChange(family, to, code)),
    ),
  'how devices start': ({ bench }) => variants(bench).map((one) => starts(bench, one)),
  'what its modes take': ({ bench }) => bench.family.modes.map(({ id }) => asked(bench, id)),
  'what its lock closes over': ({ bench }) =>
    bench.family.modes.flatMap(({ id: mode }) =>
      variants(bench).map((one) => {
        const device = { ...one, mode, lock: 'open' as const }
        const input = { kind: 'lock', epoch: 1, to: 'closed' } as const
        return step(bench.nature, device, input, 0).output
      }),
    ),
  'what it copies, opens and installs': ({ bench, aims }) =>
    bench.family.modes.flatMap(({ id: mode }) => installing(bench, aims, mode)),
  'what fits': (scenery) =>
    [...wishes(scenery), ...everyPart(scenery)].map((one) => judge(one).findings),
  'what is told of its rows': ({ bench, aims: [aim] }) =>
    aim === undefined ? [] : toldOfRows(bench, aim),
  'how another carrier’s variant is taken up': ({ bench, aims: [aim] }) =>
    aim === undefined
      ? []
      : [true, false].map((keepData) => {
          const targets = aim.targets.map((one) => ({ ...one, carriers: ['S'] }))
          const wish = { intent: 'variant-change', keepData } as const
          return judge(caseOf(bench, { ...aim, targets }, wish)).findings
        }),
  'plans of what it installs': (scenery) =>
    scenery.aims.flatMap((aim) =>
      ['push', 'card', 'storage'].map((way) => plannedBy(scenery.bench, aim, way as PlanWay)),
    ),
  plans: (scenery) => wishes(scenery).map((one) => planned(scenery.bench, one)),
  'what an aged cell needs': (scenery) =>
    wishes(scenery).map((one) => {
      const made = planOf(scenery.bench, one)
      return made.ok ? fold(made.value, agedIn(one)).needs : undefined
    }),
  rehearsals: (scenery) => wishes(scenery).map((one) => rehearsed(scenery.bench, one)),
}

/** The same device, of whose cell somebody said that it is aged. */
export const agedIn = (at: Case): Case => {
  const claims = [{ value: 'aged', weight: 1, sources: [] }]
  return {
    ...at,
    identity: { ...at.identity, batteryHealth: { kind: 'told', value: 'aged', claims } },
  }
}

/** Every aim to go back to with all data given up, and the lock to be closed over what stands there. */
export const wishes = ({ bench, aims }: Scenery): readonly Case[] => [
  ...aims.map((aim) => caseOf(bench, aim, { intent: 'downgrade', keepData: false })),
  ...bench.shelf.slice(0, 1).map((on) => caseOf(bench, on, { intent: 'relock', keepData: false })),
]

/** A package with an image for each part: also for those that are never written. */
const everyPart = ({ bench, aims: [aim] }: Scenery): readonly Case[] =>
  aim === undefined
    ? []
    : ['calib', 'customer'].map((partition) => {
        const images = aim.images.slice(0, 1).map((one) => ({ ...one, partition }))
        return caseOf(bench, { ...aim, images }, { keepData: false })
      })

export const planOf = ({ device }: Bench, at: Case) =>
  makePlan({ at, mode: device.mode, permission: true })

function planned(bench: Bench, at: Case): unknown {
  const made = planOf(bench, at)
  if (!made.ok) return made.refusal
  const { value } = made
  return [value, fold(value, at), placedSteps(value, bench.family, new Map(), 'unaffected')]
}

function rehearsed(bench: Bench, at: Case): unknown {
  const made = planOf(bench, at)
  return made.ok ? rehearse(bench.nature, bench.device, made.value).end.device : undefined
}

/** A first start of a device: what it comes to, how long it takes, what it leaves. */
function starts({ family, nature }: Bench, device: DeviceModel): unknown {
  const of = (kind: 'off' | 'system') => family.modes.find((one) => one.kind === kind)?.id ?? ''
  const fresh = { ...device, fresh: true, mode: of('off') }
  const began = step(nature, fresh, { kind: 'keys', to: of('system') }, 0)
  const { floors, marks, mode, data } = began.device
  return [startOf(family, device, nature.catalogue), began.doneAt, floors, marks, mode, data]
}

/** A week after its set-up: a day more or less of greyed switch shows. */
const WEEK_MS = 7 * 86_400_000

/** Everything that can be asked of a device in a mode, under either lock and in every plight. */
function asked({ family, nature, device }: Bench, mode: string): unknown {
  const merging = family.merge === undefined ? {} : { merge: 'merging' as const, fresh: true }
  const plights: readonly Partial<DeviceModel>[] = [
    { lockSwitch: true, account: 'on' },
    { lockSwitch: true, fused: { ...device.fused, carrier: 'S' } },
    ...[-1, 1].map((by) => ({ lockSwitch: true, setUpAt: by * 3_600_000 })),
    ...[0, 99].map((at) => ({ floors: { all: at, loader: at, modem: at, main: at } })),
    { lockSwitch: true, ...merging },
  ]
  return plights.flatMap((plight) =>
    (['open', 'closed'] as const).flatMap((lock) =>
      inputsOf(nature.catalogue, device).map((input) => {
        const here = { ...device, ...plight, mode, lock, at: WEEK_MS - 60_000 }
        const { output, device: now, doneAt } = step(nature, here, input, WEEK_MS)
        const { data, permission, account, marks, floors, lockSwitch, mergeUntil, battery } = now
        const left = [data, permission, account, marks, floors, lockSwitch, mergeUntil]
        return [output, doneAt, ...left, Math.round(battery * 1000)]
      }),
    ),
  )
}

function inputsOf(catalogue: Catalogue, device: DeviceModel): readonly TwinInput[] {
  const lease = { epoch: 1 }
  const imageFor = (role: string) =>
    [...catalogue.values()].find((one) => one.role === role && !one.modified)?.image ?? ''
  const onParts = Object.entries(device.parts).flatMap(
    ([partition, { role }]): readonly TwinInput[] => [
      { kind: 'begin', ...lease, partition, offset: 0, size: 4096, image: imageFor(role) },
      { kind: 'erase', ...lease, partition },
      { kind: 'digest', partition, size: 4096 },
      { kind: 'blocks', partition, size: 4096 },
      { kind: 'read', partition, size: 4096 },
    ],
  )
  return [
    ...onParts,
    {
      kind: 'take-permit',
      ...lease,
      permit: {
        id: 'p',
        device: device.fused.deviceId ?? '',
        scope: 'service',
        until: '2027-01-01',
      },
    },
    { kind: 'lock', ...lease, to: 'open' },
    { kind: 'lock', ...lease, to: 'closed' },
    { kind: 'slot', ...lease, slot: 'b' },
    { kind: 'merge', ...lease, do: 'wait' },
    { kind: 'merge', ...lease, do: 'cancel' },
    { kind: 'tally' },
    { kind: 'reset' },
    { kind: 'lock-switch', on: false },
  ]
}
