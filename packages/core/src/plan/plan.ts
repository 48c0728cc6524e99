/**
 * A plan: moves one after the other, from where the device is to the end that they promise. Reads a case, the mode the
 * device is in and the moves of a route; gives the steps. Parts are written in the stretch of the package they come
 * before, so that one start does for both. What was prepared is undone at Hand back, after the last look over the link.
 */
import { settled } from '../device/identity.ts'
import { isKind } from '../family/modes.ts'
import type { Family } from '../family/profile.ts'
import { tableText } from '../layout/table.ts'
import { judge } from '../match/judge.ts'
import type { Case, Unheld } from '../match/rule.ts'
import { byKey } from '../match/shelf-index.ts'
import { tableFor } from '../match/tables.ts'
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'
import type { Mode } from '../terms/device.ts'
import type { Finding } from '../verdict/verdict.ts'
import { isTakeable } from '../verdict/verdict.ts'
import { beginsAt } from './begin.ts'
import type { Laid, NoStretch, PlannedPackage, Stretch } from './lay.ts'
import { lay, leftBy } from './lay.ts'
import type { Move } from './moves.ts'
import { moveName } from './moves.ts'
import type { DeviceState } from './state.ts'
import { stateAfter } from './state.ts'
import type { Expected, MeetLook, Step, StepBody } from './step.ts'
import { boardOf, wayBackOf } from './way-back.ts'

export type Plan = {
  readonly family: string
  readonly serial: string
  readonly packages: readonly PlannedPackage[]
  /** The route it follows: one move for each package. */
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
  const laid = stretches(start, moves)
  if (!laid.ok) return laid
  const last = laid.value.at(-1)
  if (last === undefined) return refuse({ kind: 'nothing-to-write' })
  const { at, mode } = start
  const { steps } = last.road
  const asks = isKind(at.family, mode, 'system') && firstOf(steps).some(asksPermission(at.family))
  /* A device that cannot be asked for it now is not asked for it. */
  const bodies: readonly StepBody[] = [...readySteps(at, asks), ...steps]
  return ok({
    family: at.family.id,
    serial: String(serial),
    packages: laid.value.flatMap(({ packages }) => packages),
    moves,
    steps: bodies.map((body, index) => ({ ...body, number: index + 1 })),
    expected: last.expect,
    placeless: at.placeless,
    wayBack: wayBackOf(at),
  })
}

/** Steps up to the first start: whatever needs its owner's permission later finds it given at the set-up. */
function firstOf(steps: readonly StepBody[]): readonly StepBody[] {
  const start = steps.findIndex(({ kind }) => kind === 'first-start')
  return start < 0 ? steps : steps.slice(0, start)
}

function stretches(start: DeviceState, moves: readonly Move[]): Result<readonly Laid[], NoPlan> {
  const done: Laid[] = []
  let state = start
  let parts: readonly Case[] = []
  for (const [index, move] of moves.entries()) {
    const last = index === moves.length - 1
    const at = heldAgainst(state.at, move, last)
    if (at === undefined) return refuse({ kind: 'no-package', package: moveName(move) })
    const refused = whyNot(at)
    if (refused !== undefined) return refuse(refused)
    const before = done.at(-1)?.road ?? beginsAt(start)
    const whole: Stretch = { parts, main: at, way: move.way }
    const road = before.met ? before : { ...before, look: lookAt(whole) }
    const laid = lay(road, whole)
    if (!laid.ok) return refuse(noPlan(laid.refusal, state.mode))
    if (!last && goesWithNext(at, move)) {
      parts = [...parts, at]
      state = {
        ...stateAfter(state, laid.value.put, laid.value.expect),
        mode: state.mode,
      }
      continue
    }
    done.push(laid.value)
    parts = []
    state = stateAfter(state, laid.value.put, laid.value.expect)
  }
  return ok(done)
}

/** A part that is written image by image starts nothing by itself: it is started with what comes after it. */
const goesWithNext = ({ shelved }: Case, { way }: Move): boolean =>
  shelved.manifest.kind === 'part' && way === 'images'

/** The case of a move where the device stands; undefined: the shelf holds no such package. */
export function heldAgainst(at: Unheld, { pack, way }: Move, last: boolean): Case | undefined {
  const shelved = byKey(at.shelf).get(pack)
  return shelved && { ...at, shelved, way, intent: last ? at.intent : intentBefore(at.intent) }
}

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
  verdict !== 'fits' && remedy?.kind === 'along' && remedy.first !== undefined

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
        table: textOf(stretch.main.table ?? tableFor(stretch.main, boardOf(stretch.main))),
        left: leftBy(stretch),
      }
    : { table: undefined, left: [] }

const textOf = (table: Case['table']) => (table === undefined ? undefined : tableText(table))

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
