/**
 * The steps of one stretch of a plan: parts written first, and the package that is started after them. Reads where the
 * device stands and how each package goes on; gives the road on, in the family's order: into the writing mode, writes
 * in pieces with the family's restarts, read-back, first start, facts; or brought and installed by the device.
 */
import { settled } from '../device/identity.ts'
import type { Evidence, ImageDecision } from '../difference/least-write.ts'
import { isKnown } from '../match/known.ts'
import { ownParts } from './own-parts.ts'
import { loaderIn } from '../difference/loader-stays.ts'
import { fullWrite, installedWrite, leastWrite } from '../difference/least-write.ts'
import { wipesByForm } from '../firmware/forms.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { permitKindOf } from '../match/permit.ts'
import type { Case } from '../match/rule.ts'
import { inSlot, otherSlot, slotToWrite } from '../match/slots.ts'
import { cannotStart } from '../match/starts.ts'
import type { FateWhy } from '../match/rules/data-fate.ts'
import { FATE_OF, fateIn, whyErased } from '../match/rules/data-fate.ts'
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'
import type { PartRole, Slot } from '../terms/device.ts'
import { byHand, started, tried } from './ends.ts'
import type { Aim } from './expected.ts'
import { expectedOf } from './expected.ts'
import type { Install, PlanWay } from './install.ts'
import { installed, installsOf, isByImages, tidied } from './install.ts'
import type { Road, Written } from './road.ts'
import { adding, erased, to, written } from './road.ts'
import { wirePermit } from '../wire/permit.ts'
import type { PutOn } from './state.ts'
import type { Expected } from './step.ts'

export type PlannedPackage = {
  readonly key: string
  readonly manifest: Manifest
  readonly decisions: readonly ImageDecision[]
  /** What decides of the customer's data as it goes on. */
  readonly fate: FateWhy
}

/** A package as it stands held against the device that it meets, and how it goes on. */
export type Stretch = {
  /** Parts that are written before, each held against the device that it meets. */
  readonly parts: readonly Case[]
  readonly main: Case
  readonly way: PlanWay
}

export type Laid = {
  readonly packages: readonly PlannedPackage[]
  readonly put: readonly PutOn[]
  readonly road: Road
  readonly expect: Expected
  readonly aim: Aim
}

export type NoStretch = 'nothing-to-write' | 'no-road' | 'no-permit' | 'no-way'

/** What a stretch puts on, before any step of it is laid. */
type Putting = {
  readonly install: Install | undefined
  readonly packages: readonly Put[]
  readonly aim: Aim
}

function putting({ parts, main: at, way }: Stretch): Result<Putting, NoStretch> {
  const install =
    way === 'images' ? undefined : installsOf(at).find(({ rule }) => rule.from === way)
  if (asksPermit(at) && at.permit === undefined) return refuse('no-permit')
  if (install === undefined && (way !== 'images' || !isByImages(at.shelved.manifest)))
    return refuse('no-road')
  const slot = install === undefined ? slotToWrite(at) : otherSlot(at)
  const packages = [
    ...parts.map((one) => byImages(one)),
    install === undefined ? byImages(at) : byInstall(at, slot),
  ]
  if (packages.every(({ decisions }) => decisions.every(({ write }) => !write)) && !relocks(at))
    return refuse('nothing-to-write')
  const aim = { at, manifests: packages.map(asWritten), slot }
  return ok({ install, packages, aim })
}

/** Each package as far as it goes on, and how. */
const putOn = ({ install, packages, aim }: Putting): readonly PutOn[] =>
  packages.map(({ decisions, slot }, index) => ({
    manifest: aim.manifests[index] as Manifest,
    decisions,
    slot,
    wipes: FATE_OF[packages[index]?.fate ?? 'untouched'] === 'wiped',
    merges: install?.rule.merges === true && index === packages.length - 1,
  }))

/** What a stretch makes of a device, of package and family alone: nothing is laid. */
export function effectOf(
  stretch: Stretch,
): Result<Pick<Laid, 'put' | 'expect' | 'aim'>, NoStretch> {
  const put = putting(stretch)
  if (!put.ok) return put
  const { aim } = put.value
  const moments = serves(aim.at) ? [] : (['write', 'first-start', 'good'] as const)
  return ok({ put: putOn(put.value), expect: expectedOf(aim, moments), aim })
}

/** Lays a stretch on from a road. */
export function lay(begin: Road, stretch: Stretch): Result<Laid, NoStretch> {
  const found = putting(stretch)
  if (!found.ok) return found
  const { install, packages, aim } = found.value
  const parts = partsErased(aim.at)
  const rescue = install === undefined ? [] : rescueFirst(aim.at, install)
  if (rescue === undefined) return refuse('no-way')
  const road =
    install === undefined
      ? roadOf(begin, packages, { parts, aim })
      : installRoadOf(begin, install, {
          before: [...packages.slice(0, -1).flatMap(imagesOf), ...rescue],
          wipes: parts.some(({ role }) => role === 'customer'),
          aim,
        })
  if (road === undefined) return refuse('no-way')
  const proof = road.steps.findLast((one) => one.kind === 'prove')
  const expect = proof?.kind === 'prove' ? proof.expect : expectedOf(aim, [])
  const planned = packages.map(({ slot: _, ...one }): PlannedPackage => one)
  return ok({ packages: planned, put: putOn(found.value), road, expect, aim })
}

/**
 * The maker's rescue, written before anything is installed by it: under an open lock, unless the device's own digest says
 * that a known one stands there. One that its owner changed takes nothing that the maker signed. Undefined: that is what
 * stands there, and the package brings none.
 */
function rescueFirst(at: Case, { rule, pack }: Install): readonly Written[] | undefined {
  const { manifest } = at.shelved
  const place = at.family.partitions.find(({ role }) => role === 'rescue')?.name ?? ''
  const open = settled(at.identity, 'bootLock') === 'open'
  if (!rule.checks.includes('stock-rescue') || !open || isKnown(at, place)) return []
  const image = manifest.images.find(({ role }) => role === 'rescue')
  if (image !== undefined) return [{ pack, image, scale: manifest.scale }]
  return at.evidence.get(place)?.kind === 'digest' ? undefined : []
}

/** Partitions that what a stretch puts on leaves alone because the device's own digest says so. */
export const leftAlone = (packages: readonly PlannedPackage[]) =>
  packages.flatMap(({ manifest: { scale }, decisions }) =>
    decisions.flatMap(({ image, write, reason }) =>
      !write && reason.kind === 'same-digest' ? [{ image, scale }] : [],
    ),
  )

/** What is left alone by a stretch, before its road is laid: it is looked at again on the way. */
export const leftBy = ({ parts, main, way }: Stretch): ReturnType<typeof leftAlone> =>
  leftAlone([...parts, ...(way === 'images' ? [main] : [])].map((one) => byImages(one)))

/** A package with the slot it goes to, of a family that has any. */
type Put = PlannedPackage & { readonly slot: Slot | undefined }

const byInstall = (at: Case, slot: Slot | undefined): Put => {
  const { key, manifest } = at.shelved
  const { family } = at
  return {
    key,
    manifest,
    slot,
    decisions: installedWrite(family, inSlot(family, manifest, slot)),
    fate: fateIn(at),
  }
}

function byImages(at: Case): Put {
  const slot = slotToWrite(at)
  const { family, shelved, evidence, identity, house } = at
  const { key, manifest } = shelved
  const loader = settled(identity, 'loaderVersion')
  const decide = house.writes === 'all' ? fullWrite : leastWrite
  const own = inSlot(family, manifest, slot)
  const found = new Map([...loaderTold(at, own), ...evidence])
  const decisions = decide(family, own, found, {
    ...(loader === undefined ? {} : { loader: Number(loader) }),
    own: ownParts(at, own),
    closes: relocks(at),
  })
  return { key, manifest, decisions, fate: fateIn(at), slot }
}

/**
 * The version that a loader reports speaks for it where its bytes were not read, as long as the closed lock lets signed
 * ones alone start: one that is kept once is not risked for the same again.
 */
function loaderTold(
  { family, identity }: Case,
  { images }: Manifest,
): readonly (readonly [partition: string, told: Evidence])[] {
  const version = settled(identity, 'loaderVersion')
  const signed = settled(identity, 'bootLock') === 'closed' && family.keptOnce.includes('loader')
  const place = images.find(({ role }) => role === 'loader')?.partition
  return version === undefined || !signed || place === undefined
    ? []
    : [[place, { kind: 'version', version: String(version) }]]
}

const relocks = ({ intent, identity }: Case): boolean =>
  intent === 'relock' && settled(identity, 'bootLock') === 'open'

/** From where it is to its end: writes in their order, erases, the slot, the start. */
function roadOf(
  begin: Road,
  packages: readonly PlannedPackage[],
  { parts, aim }: { readonly parts: ReturnType<typeof partsErased>; readonly aim: Aim },
): Road | undefined {
  const { at } = aim
  const allowed = permitted(begin, at)
  const put = packages
    .flatMap(imagesOf)
    .reduce<Road | undefined>((road, one) => road && written(road, one), allowed)
  const wipes = parts.some(({ role }) => role === 'customer')
  const wiped = wipes || at.data === 'gone'
  const emptied = put && erased(put, parts)
  const there = emptied && (wipes ? { ...emptied, permission: false } : emptied)
  const runs = aim.slot === settled(at.identity, 'slot')
  const switched = there && tried(there, runs ? undefined : aim.slot)
  if (switched === undefined) return undefined
  const changes = switched.steps.length > begin.steps.length
  const expect = expectedOf(aim, serves(at) ? [] : ['write', 'first-start', 'good'])
  const wrote = packages.some((one) => imagesOf(one).length > 0)
  return changes ? started(switched, { wiped, expect, written: wrote }) : switched
}

const serves = ({ shelved }: Case): boolean => shelved.manifest.kind === 'service'

const asksPermit = ({ shelved }: Case): boolean => permitKindOf(shelved.manifest) !== undefined

/** What its maker permits it, given before anything that asks for it is written. */
function permitted(road: Road, at: Case): Road | undefined {
  if (!asksPermit(at) || at.permit === undefined) return road
  const there = to(road, 'permit')
  return there && adding(there, { kind: 'permit', mode: there.here, permit: wirePermit(at.permit) })
}

type Installing = {
  readonly before: readonly Written[]
  readonly wipes: boolean
  readonly aim: Aim
}

/**
 * The device's own road: the package brought, what must be raised first written, the package installed, begun
 * empty where its data could not be opened.
 */
function installRoadOf(
  begin: Road,
  install: Install,
  { before, wipes, aim }: Installing,
): Road | undefined {
  const { at } = aim
  const loader = loaderBefore(aim)
  const there = installed(begin, install, {
    before,
    slot: aim.slot,
    loader,
    starts: !cannotStart(at),
  })
  if (there === undefined) return undefined
  const emptied = wipes ? adding(there, byHand(there, 'reset', '', there.here)) : there
  const fresh = wipes || at.data === 'gone'
  const expect = expectedOf(aim, ['write', 'first-start', 'good'])
  return tidied(started(emptied, { wiped: fresh, expect, written: false }), install, wipes)
}

/** The loader that is on it when the last package goes on: one that an earlier one brings, or the device's own. */
function loaderBefore({ at, manifests }: Aim): number | undefined {
  const brought = manifests.slice(0, -1).findLast((one) => loaderIn(one) !== undefined)
  const loader = (brought && loaderIn(brought)) ?? settled(at.identity, 'loaderVersion')
  return loader === undefined ? undefined : Number(loader)
}

/**
 * A package as far as it goes on: a part that is left alone unread, or as its owner's own, raises no floor, and a loader that stays though it
 * is another brings no version.
 */
function asWritten({ manifest, decisions }: PlannedPackage): Manifest {
  const unread = decisions.filter(
    ({ reason: { kind } }) => kind === 'loader-stays' || kind === 'same-version' || kind === 'own',
  )
  const roles = unread.map(({ image }) => image.role)
  if (roles.length === 0) return manifest
  const images = manifest.images.filter(({ role }) => !roles.includes(role))
  if (unread.every(({ reason }) => reason.kind !== 'loader-stays')) return { ...manifest, images }
  const { loaderVersion: _, ...rest } = manifest
  return { ...rest, images }
}

/**
 * Partitions that the plan erases: those the package says, and all that a wipe takes where the data could not
 * be opened after and need not survive.
 */
function partsErased(at: Case): readonly { readonly name: string; readonly role: PartRole }[] {
  const { family, shelved } = at
  const wipes = whyErased(at) !== undefined || wipesByForm(shelved.manifest)
  const told = shelved.manifest.effects.erases
  return family.partitions.filter(
    ({ name, role }) => told.includes(name) || (wipes && family.wipe.includes(role)),
  )
}

const imagesOf = ({ key: pack, manifest, decisions }: PlannedPackage): readonly Written[] =>
  decisions
    .filter(({ write }) => write)
    .map(({ image }) => ({ pack, image, scale: manifest.scale }))
