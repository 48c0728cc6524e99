/**
 * A plan for one package, with one part package before it where that lifts the one unmet condition.
 * Reads a judged case and the mode the device is in; gives the steps in the family's order: ready
 * checks, into the writing mode, writes in pieces with the family's restarts, read-back, first start, facts.
 * What was prepared is undone at Hand back, after the last look over the link. Leaves out search over
 * several packages.
 */
import { settled } from '../device/identity.ts'
import type { ImageDecision } from '../difference/least-write.ts'
import { installedWrite, leastWrite } from '../difference/least-write.ts'
import { placesOf } from '../family/layout.ts'
import { isKind } from '../family/modes.ts'
import type { Family } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Case } from '../match/rule.ts'
import { judge } from '../match/judge.ts'
import { raising } from '../match/rules/loader.ts'
import { whyErased } from '../match/rules/data-fate.ts'
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'
import type { Mode, PartRole, Slot } from '../terms/device.ts'
import type { Finding } from '../verdict/verdict.ts'
import { isTakeable } from '../verdict/verdict.ts'
import { byHand, locked, started, tried } from './ends.ts'
import type { Aim } from './expected.ts'
import { expectedOf } from './expected.ts'
import type { Install, PlanWay } from './install.ts'
import { installed, installsOf, tidied } from './install.ts'
import type { Road, Written } from './road.ts'
import { adding, erased, toMode, written } from './road.ts'
import { tableText } from '../layout/table.ts'
import type { Expected, Ids, MeetLook, Step, StepBody } from './step.ts'

/** How long hands are busy with each preparation, in seconds; the house's own figures come later. */
const READY_SECONDS = { charge: 30, backup: 240, permission: 60, cable: 30 } as const

export type PlanAsk = {
  readonly at: Case
  readonly mode: Mode
  readonly permission: boolean
  /** How the package gets there; left out: image by image where it can, else as its device installs it. */
  readonly way?: PlanWay
}

export type PlannedPackage = {
  readonly key: string
  readonly manifest: Manifest
  readonly decisions: readonly ImageDecision[]
}

export type Plan = {
  readonly family: string
  readonly serial: string
  readonly packages: readonly PlannedPackage[]
  readonly steps: readonly Step[]
  readonly expected: Expected
  /** Things of the customer's that it cannot promise anything of: the family has no place for them. */
  readonly placeless: readonly string[]
  /** The package with which the device can go back to what it was, if the shelf holds it. */
  readonly wayBack: string | undefined
}

export type NoPlan =
  | {
      readonly kind: 'not-takeable'
      readonly rule: string
      readonly code: string
      readonly facts: Finding['facts']
    }
  | { readonly kind: 'no-way'; readonly from: Mode }
  | { readonly kind: 'nothing-to-write' }
  | { readonly kind: 'no-road' }
  | { readonly kind: 'unread'; readonly fact: 'serial' }

/** Makes the plan, or says why there is none. */
export function makePlan({ at, mode, permission, way: asked }: PlanAsk): Result<Plan, NoPlan> {
  const judgement = judge(at)
  const [gravest] = judgement.findings
  if (!isTakeable(judgement.verdict))
    return refuse({
      kind: 'not-takeable',
      rule: gravest?.rule ?? '',
      code: gravest?.code ?? '',
      facts: gravest?.facts ?? {},
    })
  const serial = settled(at.identity, 'serial')
  if (serial === undefined) return refuse({ kind: 'unread', fact: 'serial' })
  const install = installOf(at, asked)
  if (!hasRoad(at, install)) return refuse({ kind: 'no-road' })
  const slot = slotToWrite(at)
  const packages = packagesOf(at, slot, install)
  const parts = partsErased(at)
  if (packages.every(({ decisions }) => decisions.every(({ write }) => !write)) && !relocks(at))
    return refuse({ kind: 'nothing-to-write' })
  const manifests = packages.map(({ manifest }) => manifest)
  const aim = { at, manifests, slot }
  const ask = { at, mode, permission }
  const road =
    install === undefined
      ? roadOf({ ...ask, look: lookAt(at, packages) }, packages, { parts, aim })
      : installRoadOf(ask, install, { wipes: parts.some(({ role }) => role === 'customer'), aim })
  if (road === undefined) return refuse({ kind: 'no-way', from: mode })
  const bodies: readonly StepBody[] = [
    /* A device that cannot be asked for it now is not asked for it. */
    ...readySteps(
      at,
      road.steps.some(asksPermission(at.family)) && isKind(at.family, mode, 'system'),
    ),
    ...road.steps,
  ]
  const proof = bodies.findLast((one) => one.kind === 'prove')
  return ok({
    family: at.family.id,
    serial: String(serial),
    packages,
    steps: bodies.map((body, index) => ({ ...body, number: index + 1 })),
    expected: proof?.kind === 'prove' ? proof.expect : expectedOf(aim, []),
    placeless: at.placeless,
    wayBack: wayBackOf(at),
  })
}

/** What is said to a running system needs its permission: a way out of it, files put to it, a merge waited for. */
const asksPermission =
  (family: Family) =>
  (step: StepBody): boolean =>
    step.kind === 'enter'
      ? step.way.needs === 'permission'
      : (step.kind === 'copy' || step.kind === 'merge') && isKind(family, step.mode, 'system')

/** Kinds of package that go on image by image, and intents without a road: they wait for their operations. */
const BY_IMAGES: readonly Manifest['kind'][] = ['full', 'part']
const NO_ROAD: readonly Case['intent'][] = ['variant-change', 'service', 'preview']

/** What only its owner and a lead can agree to has no road before somebody can say so. */
const hasRoad = ({ intent, shelved: { manifest } }: Case, install: Install | undefined): boolean =>
  (install !== undefined || BY_IMAGES.includes(manifest.kind)) &&
  manifest.channel === 'stable' &&
  !NO_ROAD.includes(intent)

/** The install that was asked for, or the one way of a package that does not go on image by image. */
function installOf(at: Case, asked: PlanWay | undefined): Install | undefined {
  if (asked === 'images') return undefined
  const byImages = BY_IMAGES.includes(at.shelved.manifest.kind)
  if (asked === undefined && byImages) return undefined
  return installsOf(at).find(({ rule }) => asked === undefined || rule.from === asked)
}

const relocks = ({ intent, identity }: Case): boolean =>
  intent === 'relock' && settled(identity, 'bootLock') === 'open'

/** From where it is to its end: writes in their order, erases, the slot, the start, the lock. */
function roadOf(
  { at, mode, permission, look }: PlanAsk & { readonly look: MeetLook },
  packages: readonly PlannedPackage[],
  { parts, aim }: { readonly parts: ReturnType<typeof partsErased>; readonly aim: Aim },
): Road | undefined {
  const begin = settledUpdate(at, { ...beginsAt({ at, mode, permission }), look })
  const wrote = packages
    .flatMap(imagesOf)
    .reduce<Road | undefined>((road, one) => road && written(road, one), begin)
  const wiped = parts.some(({ role }) => role === 'customer')
  const emptied = wrote && erased(wrote, parts)
  const switched = emptied && tried(wiped ? { ...emptied, permission: false } : emptied, aim.slot)
  if (switched === undefined) return undefined
  const changes = switched.steps.length > 0
  const expect = expectedOf(aim, ['write', 'first-start', 'good'])
  return relocked(changes ? started(switched, { wiped, expect }) : switched, aim)
}

/** The lock closed at its end, where that is what the owner wants. */
function relocked(road: Road, aim: Aim): Road | undefined {
  const { at } = aim
  if (!relocks(at)) return road
  const closed = {
    ...expectedOf(aim, ['write', 'first-start', 'good', 'lock']),
    bootLock: 'closed' as const,
  }
  return locked(road, { model: String(settled(at.identity, 'model') ?? ''), expect: closed })
}

/** The device's own road: the package brought, installed, begun empty where its data could not be opened. */
function installRoadOf(
  ask: PlanAsk,
  install: Install,
  { wipes, aim }: { readonly wipes: boolean; readonly aim: Aim },
): Road | undefined {
  const begin = settledUpdate(ask.at, beginsAt(ask))
  const there = begin && installed(begin, install, aim.slot)
  if (there === undefined) return undefined
  const emptied = wipes ? adding(there, byHand('reset', '', there.here)) : there
  const expect = expectedOf(aim, ['write', 'first-start', 'good'])
  const proven = tidied(started(emptied, { wiped: wipes, expect }), install, wipes)
  /* What it installed merges now: the lock is not turned over that. */
  const { family } = ask.at
  const turns = relocks(ask.at) && family.merge?.destroyedBy.includes('lock') === true
  const waits = install.rule.merges && turns
  const wait: StepBody = { kind: 'merge', mode: proven.here, do: 'wait' }
  return relocked(waits ? adding(proven, wait) : proven, aim)
}

/** An update of its own first: one that merges is waited for, one that is only staged is taken back. */
function settledUpdate({ family, identity }: Case, road: Road): Road | undefined {
  const merge = settled(identity, 'merge')
  if (family.merge === undefined || merge === undefined || merge === 'none') return road
  const act = merge === 'merging' ? 'wait' : 'cancel'
  const kind = act === 'wait' ? 'system' : 'rescue'
  const mode = family.modes.find((one) => one.kind === kind && one.takes.merge !== undefined)?.id
  const there = mode === undefined ? undefined : toMode(road, mode)
  if (there === undefined || mode === undefined) return undefined
  /* Met again in the mode that writes: what is looked at there was not looked at here. */
  return { ...adding(there, { kind: 'merge', mode, do: act }), met: false }
}

const beginsAt = ({ at, mode, permission }: PlanAsk): Road => ({
  family: at.family,
  ids: idsOf(at),
  here: mode,
  permission,
  look: { table: undefined, left: [] },
  met: false,
  steps: [],
})

/** The table as it was read, and what is left alone because the device's own digest says so. */
const lookAt = ({ table }: Case, packages: readonly PlannedPackage[]): MeetLook => ({
  table: table === undefined ? undefined : tableText(table),
  left: packages.flatMap(({ manifest: { scale }, decisions }) =>
    decisions.flatMap(({ image, write, reason }) =>
      !write && reason.kind === 'same-digest' ? [{ image, scale }] : [],
    ),
  ),
})

/** The ids that were settled, which every meeting must show. */
const idsOf = ({ identity }: Case): Ids =>
  Object.fromEntries(
    (['model', 'board', 'chipset'] as const).flatMap((fact) => {
      const value = settled(identity, fact)
      return value === undefined ? [] : [[fact, String(value)]]
    }),
  )

/** Of a family with slots the one that does not run: the other one it falls back to. */
function slotToWrite({ family, identity }: Case): Slot | undefined {
  const slots = [...new Set(family.partitions.flatMap(({ slot }) => slot ?? []))]
  const runs = settled(identity, 'slot')
  return slots.find((slot) => slot !== runs)
}

/** A package's images on the partitions of the slot they go to. */
const inSlot = (family: Family, manifest: Manifest, slot: Slot | undefined): Manifest => ({
  ...manifest,
  images: manifest.images.map((image) => {
    const places = placesOf(family, image)
    const own = places.find((place) => place.slot === slot) ?? places[0]
    return own === undefined ? image : { ...image, partition: own.name }
  }),
})

/**
 * Partitions that the plan erases: those the package says, and all that a wipe takes where the data could not
 * be opened after and need not survive.
 */
function partsErased(at: Case): readonly { readonly name: string; readonly role: PartRole }[] {
  const { family, shelved } = at
  const wipes = whyErased(at) !== undefined
  const told = shelved.manifest.effects.erases
  return family.partitions.filter(
    ({ name, role }) => told.includes(name) || (wipes && family.wipe.includes(role)),
  )
}

/** The part that raises the loader, where it must be raised, and the package itself. */
function packagesOf(
  at: Case,
  slot: Slot | undefined,
  install: Install | undefined,
): readonly PlannedPackage[] {
  if (install !== undefined) {
    const { key, manifest } = at.shelved
    const decisions = installedWrite(at.family, inSlot(at.family, manifest, slot))
    return [{ key, manifest, decisions }]
  }
  const least = at.shelved.manifest.requires.minLoader
  const here = Number(settled(at.identity, 'loaderVersion') ?? 0)
  const first = least !== undefined && here < least ? raising(at, least) : undefined
  return [first, at.shelved].flatMap((shelved) =>
    shelved === undefined
      ? []
      : [
          {
            key: shelved.key,
            manifest: shelved.manifest,
            decisions: leastWrite(
              at.family,
              inSlot(at.family, shelved.manifest, slot),
              at.evidence,
            ),
          },
        ],
  )
}

function readySteps(at: Case, permission: boolean): readonly StepBody[] {
  const ready = (what: keyof typeof READY_SECONDS) =>
    ({ kind: 'ready', what, seconds: READY_SECONDS[what] }) as const
  return [
    ...(at.keepData ? [ready('backup')] : []),
    ready('charge'),
    ready('cable'),
    ...(permission ? [ready('permission')] : []),
  ]
}

const imagesOf = ({ key: pack, manifest, decisions }: PlannedPackage): readonly Written[] =>
  decisions
    .filter(({ write }) => write)
    .map(({ image }) => ({ pack, image, scale: manifest.scale }))

/** A proven full package of the build it has now; how long it stays a way back is folded. */
function wayBackOf(at: Case): string | undefined {
  const build = settled(at.identity, 'build')
  return at.shelf.find(
    ({ manifest, state }) =>
      manifest.kind === 'full' && manifest.build === build && state === 'published',
  )?.key
}
