/**
 * The packages of a shelf as moves of a search: what each asks of the state it meets, what it makes of that, what it
 * costs. Every rule is asked of every package on the state it meets; what cannot change on the way is asked once.
 * Reads a state; gives the world that is searched.
 */
import { settled } from '../device/identity.ts'
import type { Manifest, Shelved } from '../firmware/manifest.ts'
import type { HouseRules } from '../match/house.ts'
import { judge } from '../match/judge.ts'
import type { Case, Rule, Unheld } from '../match/rule.ts'
import { ask as askRule, isAsked, verdictOf } from '../match/rule.ts'
import { RULES } from '../match/rules.ts'
import { byKey } from '../match/shelf-index.ts'
import type { OwnFigures } from '../pace/pace.ts'
import { installsOf, isByImages } from '../plan/install.ts'
import type { Move, PackMove } from '../plan/moves.ts'
import { aimOf, isPack, moveName } from '../plan/moves.ts'
import { heldAgainst, intentBefore, needsFirst } from '../plan/plan.ts'
import { actAlone } from '../plan/acts.ts'
import { effectAlone, layAlone } from '../plan/alone.ts'
import { actsOf, lacksAt, tailsOf } from './ends.ts'
import type { DeviceState } from '../plan/state.ts'
import { MOVED_FACTS, stateAfter } from '../plan/state.ts'
import { ROLES_OF_PARTS } from '../terms/device.ts'
import { isTakeable } from '../verdict/verdict.ts'
import { costOf } from './fold-cost.ts'
import type { Asked } from './relevant.ts'
import { helpersOf } from './relevant.ts'
import type { World } from './search.ts'

export type WorldAsk = {
  readonly start: DeviceState
  readonly isAim: (shelved: Shelved) => boolean
  /** Ways in which the last move may go on; left out: every one. */
  readonly isWay?: (way: PackMove['way']) => boolean
  readonly own?: OwnFigures
}

/** Whether its word may be another one on another state. */
export const isMoved = (rule: Rule): boolean =>
  [...rule.needs, ...rule.sees].some((fact) => MOVED_FACTS.some((one) => one === fact)) ||
  [...rule.asks, ...rule.reads].includes('evidence')
/** Rules whose word may be another one on another state, what is asked for first; and those whose is not. */
const MOVING = [...RULES.filter(isMoved)].sort(
  (a, b) => Number(b.brought !== undefined) - Number(a.brought !== undefined),
)
/** Rules of which what goes before may turn the word. */
const BROUGHT = RULES.filter(
  ({ brought, broughtBy }) => brought !== undefined || broughtBy.length > 0,
)
const STILL = RULES.filter((rule) => !isMoved(rule))

/** Every way in which a package goes on. */
export function waysOf(at: Unheld, shelved: Shelved): readonly PackMove[] {
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
    if (!isPack(move)) return true
    const held = heldAgainst(start, move, last)
    return held !== undefined && STILL.every((rule) => isMet(rule, held))
  })
  const packs = at.shelf.flatMap((shelved) => waysOf(at, shelved))
  const all = [...packs, ...actsOf(at.family)]
  const aimed = new Set(at.shelf.filter(isAim).map(({ key }) => key))
  const aims = packs.filter((move) => aimed.has(move.pack) && isWay(move.way) && still(move, true))
  const helps = (move: Move) => still(move, false)
  const asks = askingIn(start, { all, helps, isSo: isMet })
  const helpers = helpersOf({ aims, all, asks })
  return {
    start,
    helpers,
    aims,
    tails: tailsOf(start, helpers),
    lacks: (state) => lacksAt(start, state),
    idOf: moveName,
    endOf: (move) => (isPack(move) ? move.pack : ''),
    allows: allowing(),
    prefers: (moves) => isOfSchool(at.house, moves),
    ...overwriting(at),
    peek: (state, move) => effectOf(state, move, false),
    apply: (state, move, last) => applied(state, move, { last, own }),
    nameOf,
    covers,
  }
}

/** Put on as the house has it: by parts over the cable, or installed by the device. */
export const isOfSchool = ({ way }: HouseRules, moves: readonly Move[]): boolean =>
  (aimOf(moves)?.way === 'images') === (way === 'parts')

/**
 * Whether a whole package leaves nothing of the one that went on before it: every part of that is a part of it. Of a
 * family that keeps its system twice it goes to the other side, and leaves all of it.
 */
function overwriting({
  family,
  shelf,
}: Unheld): Required<Pick<World<DeviceState, Move>, 'overwrites' | 'kindOf'>> {
  const once = family.partitions.every(({ slot }) => slot === undefined)
  const merges = family.installs.some((install) => install.merges)
  /* Roles as bits: every pair of moves is asked. */
  const bits = (images: Manifest['images']) =>
    images.reduce((all, { role }) => all | (1 << ROLES_OF_PARTS.indexOf(role)), 0)
  const roles = new Map(shelf.map(({ key, manifest }) => [key, bits(manifest.images)]))
  const full = new Set(
    shelf.flatMap(({ key, manifest }) => (manifest.kind === 'full' ? [key] : [])),
  )
  const overwrites = (move: Move, last: Move) => {
    if (!once || merges || !isPack(move) || !isPack(last) || !full.has(move.pack)) return false
    return ((roles.get(last.pack) ?? 0) & ~(roles.get(move.pack) ?? 0)) === 0
  }
  return { overwrites, kindOf: (last) => (isPack(last) ? String(roles.get(last.pack)) : last.act) }
}

/** Whether a move may be made in a state; of one state each is asked once. */
function allowing(): World<DeviceState, Move>['allows'] {
  const known = new WeakMap<DeviceState, InState>()
  return (state, move, last) => {
    let mine = known.get(state)
    if (mine === undefined) known.set(state, (mine = inState(state)))
    const answers = last ? mine.last : mine.before
    let answer = answers.get(move)
    if (answer === undefined) {
      const held = mine.hold(move, last)
      const rules = isPack(move) ? MOVING : RULES
      answer = held !== undefined && rules.every((rule) => isMet(rule, held))
      answers.set(move, answer)
    }
    return answer
  }
}

type InState = {
  readonly before: Map<Move, boolean>
  readonly last: Map<Move, boolean>
  /** The case of a move; of packages one and the same, changed: whoever asks is done with it before the next. */
  readonly hold: (move: Move, last: boolean) => Case | undefined
}

function inState(state: DeviceState): InState {
  const shelf = byKey(state.at.shelf)
  let held: { -readonly [Name in keyof Case]: Case[Name] } | undefined
  return {
    before: new Map(),
    last: new Map(),
    hold: (move, last) => {
      if (held === undefined || !isPack(move)) {
        const own = heldAgainst(state, move, last)
        if (isPack(move) && own !== undefined) held = own
        return own
      }
      const shelved = shelf.get(move.pack)
      if (shelved === undefined) return undefined
      held.shelved = shelved
      held.way = move.way
      held.intent = last ? state.at.intent : intentBefore(state.at.intent)
      return held
    },
  }
}

/** What moves ask of what other moves bring, as it stands at the beginning. */
export function askingIn(
  start: DeviceState,
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
  const manifests = new Map(start.at.shelf.map(({ key, manifest }) => [key, manifest]))
  const manifestOf = (move: Move) => (isPack(move) ? manifests.get(move.pack) : undefined)
  return (move) => {
    const asking = manifestOf(move)
    const held = heldAgainst(start, move, false)
    if (held === undefined) return []
    return BROUGHT.filter((rule) => isAsked(rule, held) && rule.concerns(held)).map((rule) => ({
      holds: isSo(rule, held),
      bring: all.filter((by) => {
        if (!isPack(by)) return rule.broughtBy.includes(by.act)
        const other = manifestOf(by)
        const does = asking !== undefined && other !== undefined && other !== asking
        return does && rule.brought?.(asking, other) === true && helps(by)
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
  if (!isPack(move)) return actAlone(state, move.act)?.state
  const held = heldAgainst(state, move, last)
  const does = held && effectAlone(held, move.way)
  return does?.ok === true ? stateAfter(state, does.value.put, does.value) : undefined
}

export function applied(
  before: DeviceState,
  move: Move,
  { last, own }: { readonly last: boolean; readonly own: OwnFigures | undefined },
) {
  const held = heldAgainst(before, move, last)
  if (held === undefined) return undefined
  if (!isPack(move)) {
    const done = actAlone(before, move.act)
    return done && { state: done.state, cost: costOf(held, { ...done, packages: [] }, own) }
  }
  const laid = layAlone(before, held, move.way)
  if (!laid.ok) return undefined
  const state = stateAfter(before, laid.value.put, laid.value)
  return { state, cost: costOf(held, laid.value, own) }
}

/** Floors are held against each other; everything else that moves make of a state must be alike. */
const FLOORS = MOVED_FACTS.filter((fact) => fact.startsWith('floor'))
const APART = MOVED_FACTS.filter((fact) => !fact.startsWith('floor'))

/** Names are asked for again and again. */
const names = new WeakMap<DeviceState, string>()
export function nameOf(state: DeviceState): string {
  const known = names.get(state) ?? nameIn(state)
  names.set(state, known)
  return known
}

const nameIn = ({ at, mode, permission }: DeviceState): string =>
  JSON.stringify([
    APART.map((fact) => settled(at.identity, fact) ?? null),
    imagesOf(at),
    mode,
    permission,
    at.data ?? null,
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
  const held = heldAgainst(state, move, last)
  return held && judge(held)
}
