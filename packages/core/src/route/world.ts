/**
 * The packages of a shelf as moves of a search: what each asks of the state it meets, what it makes of that, what it
 * costs. Every rule is asked of every package on the state it meets; what cannot change on the way is asked once.
 * Reads a state; gives the world that is searched.
 */
import { settled } from '../device/identity.ts'
import type { Shelved } from '../firmware/manifest.ts'
import { judge } from '../match/judge.ts'
import type { Case, Rule, Unheld } from '../match/rule.ts'
import { ask as askRule, verdictOf } from '../match/rule.ts'
import { RULES } from '../match/rules.ts'
import type { OwnFigures } from '../pace/pace.ts'
import { installsOf, isByImages } from '../plan/install.ts'
import type { Move } from '../plan/moves.ts'
import { moveName } from '../plan/moves.ts'
import { heldAgainst, needsFirst } from '../plan/plan.ts'
import { effectAlone, layAlone } from '../plan/alone.ts'
import type { DeviceState } from '../plan/state.ts'
import { MOVED_FACTS, stateAfter } from '../plan/state.ts'
import { isTakeable } from '../verdict/verdict.ts'
import { costOf } from './fold-cost.ts'
import type { Asked } from './relevant.ts'
import { helpersOf } from './relevant.ts'
import type { World } from './search.ts'

export type WorldAsk = {
  readonly start: DeviceState
  readonly isAim: (shelved: Shelved) => boolean
  /** Ways in which the last move may go on; left out: every one. */
  readonly isWay?: (way: Move['way']) => boolean
  readonly own?: OwnFigures
}

/** Whether its word may be another one on another state. */
export const isMoved = (rule: Rule): boolean =>
  [...rule.needs, ...rule.sees].some((fact) => MOVED_FACTS.some((one) => one === fact)) ||
  [...rule.asks, ...rule.reads].includes('evidence')
/** Rules whose word may be another one on another state, and those whose is not. */
const MOVING = RULES.filter(isMoved)
/** Rules of which a package that goes on before may turn the word. */
const BROUGHT = RULES.filter(({ brought }) => brought !== undefined)
const STILL = RULES.filter((rule) => !isMoved(rule))

/** Every way in which a package goes on. */
export function waysOf(at: Unheld, shelved: Shelved): readonly Move[] {
  const pack = shelved.key
  const installs = installsOf({ ...at, shelved }).map(({ rule }) => ({ pack, way: rule.from }))
  return isByImages(shelved.manifest) ? [{ pack, way: 'images' }, ...installs] : installs
}

/** Whether a rule's word on a package can be taken, and nothing must be put on first. */
function isMet(rule: Rule, at: Case): boolean {
  const verdict = verdictOf(rule, at)
  if (verdict === undefined || verdict === 'fits') return true
  if (!isTakeable(verdict)) return false
  const finding = askRule(rule, at)
  return finding === undefined || !needsFirst(finding)
}

/** The world of a shelf around a device. */
export function worldOf({
  start,
  isAim,
  isWay = () => true,
  own,
}: WorldAsk): World<DeviceState, Move> {
  const { at } = start
  const still = kept((move: Move, last: boolean) => {
    const held = heldAgainst(at, move, last)
    return held !== undefined && STILL.every((rule) => isMet(rule, held))
  })
  const all = at.shelf.flatMap((shelved) => waysOf(at, shelved))
  const aimed = new Set(at.shelf.filter(isAim).map(({ key }) => key))
  const aims = all.filter((move) => aimed.has(move.pack) && isWay(move.way) && still(move, true))
  const helps = (move: Move) => still(move, false)
  const helpers = helpersOf({ aims, all, asks: askingIn(at, { all, helps, isSo: isMet }) })
  return {
    start,
    helpers,
    aims,
    idOf: moveName,
    endOf: ({ pack }) => pack,
    allows: allowing(),
    peek: (state, move) => effectOf(state, move, false),
    apply: (state, move, last) => applied(state, move, { last, own }),
    nameOf,
    covers,
  }
}

/** Whether a move may be made in a state; of one state each is asked once. */
function allowing(): World<DeviceState, Move>['allows'] {
  const known = new WeakMap<DeviceState, Map<string, boolean>>()
  return (state, move, last) => {
    const mine = known.get(state) ?? new Map<string, boolean>()
    known.set(state, mine)
    const name = `${moveName(move)} ${last}`
    const before = mine.get(name)
    if (before !== undefined) return before
    const held = heldAgainst(state.at, move, last)
    const may = held !== undefined && MOVING.every((rule) => isMet(rule, held))
    mine.set(name, may)
    return may
  }
}

/** What moves ask of what other packages bring, as it stands at the beginning. */
export function askingIn(
  at: Unheld,
  {
    all,
    helps,
    isSo,
  }: {
    readonly all: readonly Move[]
    /** Whether a move may come before another at all; asked of what would bring something alone. */
    readonly helps: (move: Move) => boolean
    readonly isSo: typeof isMet
  },
): (move: Move) => readonly Asked<Move>[] {
  const manifests = new Map(at.shelf.map(({ key, manifest }) => [key, manifest]))
  return (move) => {
    const asking = manifests.get(move.pack)
    const held = heldAgainst(at, move, false)
    if (asking === undefined || held === undefined) return []
    return BROUGHT.filter((rule) => rule.concerns(held)).map((rule) => ({
      holds: isSo(rule, held),
      bring: all.filter((by) => {
        const other = manifests.get(by.pack)
        return (
          other !== undefined &&
          other !== asking &&
          rule.brought?.(asking, other) === true &&
          helps(by)
        )
      }),
    }))
  }
}

/** Answers by move, each worked out once. */
function kept(of: (move: Move, last: boolean) => boolean): (move: Move, last: boolean) => boolean {
  const known = new Map<string, boolean>()
  return (move, last) => {
    const name = `${moveName(move)} ${last}`
    const answer = known.get(name) ?? of(move, last)
    known.set(name, answer)
    return answer
  }
}

/** What a move makes of a state; undefined: nothing of it is to be put on there, or it goes on in no such way. */
export function effectOf(state: DeviceState, move: Move, last: boolean): DeviceState | undefined {
  const held = heldAgainst(state.at, move, last)
  const does = held && effectAlone(held, move.way)
  return does?.ok === true ? stateAfter(state, does.value.put, does.value.expect) : undefined
}

export function applied(
  before: DeviceState,
  move: Move,
  { last, own }: { readonly last: boolean; readonly own: OwnFigures | undefined },
) {
  const held = heldAgainst(before.at, move, last)
  const laid = held && layAlone(before, held, move.way)
  if (held === undefined || laid?.ok !== true) return undefined
  const state = stateAfter(before, laid.value.put, laid.value.expect)
  return { state, cost: costOf(held, laid.value, own) }
}

/** Floors are held against each other; everything else that moves make of a state must be alike. */
const FLOORS = MOVED_FACTS.filter((fact) => fact.startsWith('floor'))
const APART = MOVED_FACTS.filter((fact) => !fact.startsWith('floor'))

export const nameOf = ({ at, mode, permission }: DeviceState): string =>
  JSON.stringify([
    APART.map((fact) => settled(at.identity, fact) ?? null),
    imagesOf(at),
    mode,
    permission,
  ])

const imagesOf = ({ evidence }: Unheld): readonly (readonly string[])[] =>
  [...evidence]
    .map(([name, found]) => [name, found.kind === 'digest' ? found.sha256 : found.version])
    .sort(([a = ''], [b = '']) => (a < b ? -1 : 1))

export const covers = (a: DeviceState, b: DeviceState): boolean =>
  FLOORS.every((fact) => {
    const [one, other] = [settled(a.at.identity, fact), settled(b.at.identity, fact)]
    return (
      one === other || (one !== undefined && other !== undefined && Number(one) <= Number(other))
    )
  })

/** The findings on a move where it is made. */
export const judgedAt = (state: DeviceState, move: Move, last: boolean) => {
  const held = heldAgainst(state.at, move, last)
  return held && judge(held)
}
