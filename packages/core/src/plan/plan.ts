/**
 * A plan: moves one after the other, from where the device is to the end that they promise. Reads a case, the mode the
 * device is in and the moves of a route; gives the steps. Parts are written in the stretch of the package they come
 * before, so that one start does for both. What was prepared is undone at Hand back, after the last look over the link.
 */
import { settled } from '../device/identity.ts'
import { isKind } from '../family/modes.ts'
import type { Family } from '../family/profile.ts'
import { tableText } from '../layout/table.ts'
import { layoutText } from '../layout/wanted.ts'
import { judge } from '../match/judge.ts'
import type { Case, Unheld } from '../match/rule.ts'
import { byKey } from '../match/shelf-index.ts'
import { wantedLayout } from '../match/tables.ts'
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'
import type { Mode } from '../terms/device.ts'
import type { Finding } from '../verdict/verdict.ts'
import { isTakeable } from '../verdict/verdict.ts'
import type { Shelved } from '../firmware/manifest.ts'
import { layAct } from './acts.ts'
import { beginsAt } from './begin.ts'
import type { Laid, NoStretch, PlannedPackage, Stretch } from './lay.ts'
import { lay, leftBy } from './lay.ts'
import type { ActMove, Move, PackMove } from './moves.ts'
import { isPack, moveName } from './moves.ts'
import type { Road } from './road.ts'
import type { DeviceState } from './state.ts'
import { stateAfter } from './state.ts'
import type { Expected, MeetLook, Step, StepBody } from './step.ts'
import { boardOf, wayBackOf } from './way-back.ts'

export type Plan = {
  readonly family: string
  readonly serial: string
  readonly packages: readonly PlannedPackage[]
  /** The route it follows: its packages, and what is done without one. */
  readonly moves: readonly Move[]
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
  | { readonly kind: Exclude<NoStretch, 'no-way'> }
  | { readonly kind: 'unread'; readonly fact: 'serial' }
  /** No package of the shelf is called so. */
  | { readonly kind: 'no-package'; readonly package: string }

/** Lays the moves one after the other, each judged on where the one before leaves the device; or says why not. */
export function planOf(start: DeviceState, moves: readonly Move[]): Result<Plan, NoPlan> {
  const serial = settled(start.at.identity, 'serial')
  if (serial === undefined) return refuse({ kind: 'unread', fact: 'serial' })
  const laid = laidAlong(start, moves)
  if (!laid.ok) return laid
  const { packages, expect, road } = laid.value
  const { at, mode } = start
  const { steps } = road
  const asks = isKind(at.family, mode, 'system') && firstOf(steps).some(asksPermission(at.family))
  /* A device that cannot be asked for it now is not asked for it. */
  const bodies: readonly StepBody[] = [...readySteps(at, asks), ...steps]
  return ok({
    family: at.family.id,
    serial: String(serial),
    packages,
    moves,
    steps: bodies.map((body, index) => ({ ...body, number: index + 1 })),
    expected: expect,
    placeless: at.placeless,
    wayBack: wayBackOf(at),
  })
}

/** Steps up to the first start: whatever needs its owner's permission later finds it given at the set-up. */
function firstOf(steps: readonly StepBody[]): readonly StepBody[] {
  const start = steps.findIndex(({ kind }) => kind === 'first-start')
  return start < 0 ? steps : steps.slice(0, start)
}

/** What a plan is laid of, as far as it has come. */
type Lying = {
  readonly packages: readonly PlannedPackage[]
  readonly road: Road
  readonly expect: Expected | undefined
  readonly state: DeviceState
  /** Parts that wait for what starts them, and the road with them alone. */
  readonly parts: readonly Case[]
  readonly alone: Laid | undefined
}

function laidAlong(
  start: DeviceState,
  moves: readonly Move[],
): Result<Pick<Lying, 'packages' | 'road'> & { readonly expect: Expected }, NoPlan> {
  const aim = moves.findLastIndex(isPack)
  const none = { packages: [], expect: undefined, parts: [], alone: undefined }
  let lying: Lying = { ...none, road: beginsAt(start), state: start }
  for (const [index, move] of moves.entries()) {
    const next = isPack(move)
      ? packageLaid(lying, move, index === aim)
      : actLaid(withParts(lying), move)
    if (!next.ok) return next
    lying = next.value
  }
  const { packages, road, expect } = withParts(lying)
  return expect === undefined || aim < 0
    ? refuse({ kind: 'nothing-to-write' })
    : ok({ packages, road, expect })
}

/** Parts that nothing came after are a stretch of their own. */
function withParts({ alone, ...lying }: Lying): Lying {
  if (alone === undefined) return { ...lying, alone }
  const { packages, road, expect } = alone
  const all = [...lying.packages, ...packages]
  return { ...lying, packages: all, road, expect, parts: [], alone: undefined }
}

function packageLaid(lying: Lying, move: PackMove, last: boolean): Result<Lying, NoPlan> {
  const { state, parts } = lying
  const at = heldAgainst(state, move, last)
  if (at === undefined) return refuse({ kind: 'no-package', package: moveName(move) })
  const refused = whyNot(at)
  if (refused !== undefined) return refuse(refused)
  const whole: Stretch = { parts, main: at, way: move.way }
  const road = lying.road.met ? lying.road : { ...lying.road, look: lookAt(whole) }
  const laid = lay(road, whole)
  if (!laid.ok) return refuse(noPlan(laid.refusal, state.mode))
  const after = stateAfter(state, laid.value.put, laid.value)
  if (!last && goesWithNext(at, move)) {
    const there = { ...after, mode: state.mode, permission: state.permission }
    return ok({ ...lying, parts: [...parts, at], alone: laid.value, state: there })
  }
  const { packages, expect } = laid.value
  const all = [...lying.packages, ...packages]
  const on = { packages: all, road: laid.value.road, expect, state: after }
  return ok({ ...on, parts: [], alone: undefined })
}

function actLaid(lying: Lying, { act }: ActMove): Result<Lying, NoPlan> {
  const { road, state, expect } = lying
  const held = heldAgainst(state, { act }, true)
  const refused = held && whyNot(held)
  if (refused !== undefined) return refuse(refused)
  const done = layAct(road, state, act)
  if (done === undefined) return refuse({ kind: 'no-way', from: state.mode })
  return ok({ ...lying, road: done.road, state: done.state, expect: done.expect ?? expect })
}

/** A part that is written image by image starts nothing by itself: it is started with what comes after it. */
const goesWithNext = ({ shelved }: Case, { way }: PackMove): boolean =>
  shelved.manifest.kind === 'part' && way === 'images'

/**
 * The case of a move where the device stands: of a package that is put on, the last or one before it; of an act, with
 * what was put on before. Undefined: the shelf holds no such package.
 */
export function heldAgainst(
  { at, onto }: DeviceState,
  move: Move,
  last: boolean,
): Case | undefined {
  const intent = last ? at.intent : intentBefore(at.intent)
  if (isPack(move)) {
    const shelved = byKey(at.shelf).get(move.pack)
    return shelved && { ...at, shelved, way: move.way, intent }
  }
  const { act } = move
  const shelved = onto?.at.shelved ?? NOTHING
  /* Whoever closes it closes it over what is on it, whatever the device came for. */
  return { ...at, shelved, act, intent: act === 'close' ? 'relock' : intent }
}

/** What stands for the package where none was put on: no rule of an act that comes before one looks at it. */
const NOTHING = { key: '', manifest: {}, state: 'known' } as unknown as Shelved

/** The lock is closed, and service software goes on, at the end and nowhere before. */
export const intentBefore = (intent: Unheld['intent']): Unheld['intent'] =>
  intent === 'relock' || intent === 'service' ? 'update' : intent

/** Why a package may not go on as things stand then: its gravest finding; undefined: it may. */
function whyNot(at: Case): NoPlan | undefined {
  const { verdict, findings } = judge(at)
  const comesFirst = findings.find(needsFirst)
  const [gravest] = findings
  const finding = isTakeable(verdict) ? comesFirst : gravest
  return finding && { kind: 'not-takeable', ...pick(finding) }
}

/** Something must be put on before it that is not on it. */
export const needsFirst = ({ verdict, remedy }: Finding): boolean =>
  verdict !== 'fits' &&
  remedy?.kind === 'along' &&
  (remedy.first !== undefined || remedy.act !== undefined)

const pick = ({ rule, code, facts }: Finding) => ({ rule, code, facts })

const noPlan = (why: NoStretch, from: Mode): NoPlan =>
  why === 'no-way' ? { kind: why, from } : { kind: why }

/** What is said to a running system needs its permission: a way out of it, files put to it, a merge waited for. */
const asksPermission =
  (family: Family) =>
  (step: StepBody): boolean =>
    step.kind === 'enter'
      ? step.way.needs === 'permission'
      : (step.kind === 'copy' || step.kind === 'merge') && isKind(family, step.mode, 'system')

/**
 * The table as it was read, or, where nobody did, as the family has it; and what is left alone because the device's
 * own digest says so. What installs a package by itself looks for itself.
 */
const lookAt = (stretch: Stretch): MeetLook =>
  stretch.way === 'images'
    ? {
        table: askedTable(stretch.main),
        left: leftBy(stretch),
      }
    : { table: undefined, left: [] }

/** Its own table as it was read; where nobody did, what family and package give of it and no more. */
function askedTable(main: Case): string | undefined {
  if (main.table !== undefined) return tableText(main.table)
  const layout = wantedLayout(main, boardOf(main))
  return layout === undefined ? undefined : layoutText(layout, main.family.sectorBytes)
}

function readySteps(at: Unheld, permission: boolean): readonly StepBody[] {
  const ready = (what: 'charge' | 'backup' | 'permission' | 'cable') =>
    ({ kind: 'ready', what, seconds: at.house.handSeconds[what] }) as const
  return [
    ...(at.keepData ? [ready('backup')] : []),
    ready('charge'),
    ready('cable'),
    ...(permission ? [ready('permission')] : []),
  ]
}
