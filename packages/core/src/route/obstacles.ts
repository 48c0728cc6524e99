/**
 * What stands in the way where no route is open, and what would lift it: the same search, in which a finding that could
 * be lifted is no wall but is carried along. Of two sets the one that holds no more stands; the smallest come first.
 * What nobody may overrule and no reading can turn is a wall. Reads a state; gives sets of obstacles.
 */
import type { Shelved } from '../firmware/manifest.ts'
import { better, isAim } from '../match/judge.ts'
import type { Case, Rule } from '../match/rule.ts'
import { ask } from '../match/rule.ts'
import { RULES } from '../match/rules.ts'
import type { Move } from '../plan/moves.ts'
import { isPack, moveName } from '../plan/moves.ts'
import { heldAgainst, needsFirst } from '../plan/plan.ts'
import type { DeviceState } from '../plan/state.ts'
import type { Finding } from '../verdict/verdict.ts'
import { isTakeable } from '../verdict/verdict.ts'
import { NO_COST } from './cost.ts'
import { actsOf, lacksAt, tailsOf } from './ends.ts'
import { helpersOf } from './relevant.ts'
import type { Limits } from './search.ts'
import { LABELS_MOST, search } from './search.ts'
import type { Miss } from './wish.ts'
import { missesOf, weightOf } from './wish.ts'
import { askingIn, covers, effectOf, isMoved, nameOf, waysOf } from './world.ts'

export type Obstacle = { readonly title: string; readonly pack: string; readonly finding: Finding }
/** What would have to be lifted for a way to a package, and the moves of that way. */
export type Blocked = {
  readonly aim: Shelved
  readonly moves: readonly Move[]
  readonly obstacles: readonly Obstacle[]
}

/** As many sets as a person looks at. */
const SETS_MOST = 3

/** What is brought from outside and turns a rule that nobody overrules: the owner's other wish, its maker's permit. */
const BROUGHT: readonly (string | undefined)[] = ['ask', 'permit']

/** Whether something that people do could turn a finding: a reading, a word that overrules, what is brought. */
export const isLiftable = ({ verdict, overruled, remedy }: Finding): boolean =>
  verdict === 'cannot-tell' ||
  (verdict === 'does-not-fit' && (overruled !== 'nobody' || BROUGHT.includes(remedy?.kind)))

/** A condition without which there is no way at all, though the package may fit: its maker's permit. */
const isMissing = ({ verdict, remedy }: Finding): boolean =>
  verdict === 'fits-if' && remedy?.kind === 'permit'

/** The same device with whatever permit it lacks: what a move would make of it then. */
const asPermitted = (state: DeviceState): DeviceState => ({
  ...state,
  at: {
    ...state.at,
    permit: state.at.permit ?? { id: '', device: '', scope: '', until: '' },
  },
})

/** A state with what had to be lifted on the way to it, by name. */
type Lifted = { readonly state: DeviceState; readonly lifts: ReadonlyMap<string, Obstacle> }

/**
 * The smallest sets of obstacles, over every package that could be the aim. `open`: the routes that are open; sets that
 * come no nearer to the wish than those are none.
 */
export function obstaclesOf(
  start: DeviceState,
  open: readonly { readonly misses: readonly Miss[] }[] = [],
  limits: Limits = { most: LABELS_MOST },
): readonly Blocked[] {
  const { at } = start
  const packs = at.shelf
    .flatMap((one) => waysOf(at, one))
    .filter((move) => !isStillWalled(start, move))
  const all = [...packs, ...actsOf(at.family)]
  const named = new Map(at.shelf.map((one) => [one.key, one]))
  const aims = packs.filter(({ pack }) => {
    const shelved = named.get(pack)
    return shelved !== undefined && isAim(at, shelved)
  })
  const helpers = helpersOf({
    aims,
    all,
    asks: askingIn(start, { all, helps: () => true, isSo: isNoWall }),
  })
  const { ends } = search<Lifted, Move>(
    {
      start: { state: start, lifts: new Map() },
      helpers,
      aims,
      tails: tailsOf(start, helpers),
      lacks: ({ state }) => lacksAt(start, state),
      idOf: moveName,
      endOf: (move) => (isPack(move) ? move.pack : ''),
      allows: ({ state }, move, last) => liftedBy(state, move, last) !== undefined,
      apply: ({ state, lifts }, move, last) => {
        const own = liftedBy(state, move, last)
        const then = effectOf(asPermitted(state), move, last)
        if (own === undefined || then === undefined) return undefined
        const cost = { ...NO_COST, packages: 1 }
        const at = { ...then.at, permit: state.at.permit }
        return { state: { state: { ...then, at }, lifts: new Map([...lifts, ...own]) }, cost }
      },
      nameOf: ({ state }) => nameOf(state),
      covers: (a, b) => covers(a.state, b.state) && holdsNoMore(a, b),
      endsAsWell: holdsNoMore,
    },
    limits,
  )
  const sets = [...ends].flatMap(([pack, ways]) =>
    ways.flatMap(({ moves, end }) => {
      const aim = named.get(pack)
      if (aim === undefined) return []
      const misses = missesOf(start, { shelved: aim, cost: NO_COST, end: end.state })
      const weight = weightOf(misses)
      const comes = open.every((one) => weight < weightOf(one.misses))
      return comes ? [{ aim, moves, lifts: end.lifts, misses: weight }] : []
    }),
  )
  return smallest(start, sets).map(({ lifts, misses: _, ...one }) => ({
    ...one,
    obstacles: [...lifts.values()],
  }))
}

type Lifting = Omit<Blocked, 'obstacles'> & Pick<Lifted, 'lifts'> & { readonly misses: number }

/** The smallest first, then what serves the wish; one that holds all of another, and more, is no better than that. */
function smallest({ at }: DeviceState, sets: readonly Lifting[]): readonly Lifting[] {
  const inOrder = [...sets].sort(
    (a, b) =>
      a.lifts.size - b.lifts.size ||
      a.misses - b.misses ||
      better(at, a.aim.manifest, b.aim.manifest) ||
      a.moves.length - b.moves.length ||
      (a.aim.key < b.aim.key ? -1 : 1),
  )
  return inOrder
    .filter((one, index) => !inOrder.slice(0, index).some((before) => holdsNoMore(before, one)))
    .slice(0, SETS_MOST)
}

const holdsNoMore = (a: Pick<Lifted, 'lifts'>, b: Pick<Lifted, 'lifts'>): boolean =>
  [...a.lifts.keys()].every((name) => b.lifts.has(name))

/** What a move would want lifted where it is made; undefined: a wall stands there, or something must come first. */
function liftedBy(
  state: DeviceState,
  move: Move,
  last: boolean,
): ReadonlyMap<string, Obstacle> | undefined {
  const held = heldAgainst(state, move, last)
  if (held === undefined) return undefined
  const findings = RULES.flatMap((rule) => ask(rule, held) ?? [])
  const shut = findings.filter((one) => !isTakeable(one.verdict) || isMissing(one))
  const stays = shut.some((one) => !isLiftable(one) && !isMissing(one))
  if (findings.some(needsFirst) || stays) return undefined
  const { key, manifest } = held.shelved
  const title = (manifest.title as string | undefined) ?? ''
  return new Map(
    shut.map((finding) => [
      /* A reading or another wish lifts it for every package; a word that overrules is for one. */
      finding.verdict === 'cannot-tell' || finding.remedy?.kind === 'ask'
        ? `${finding.rule} ${finding.missing.join(' ')}`
        : `${finding.rule} ${key}`,
      { title, pack: key, finding },
    ]),
  )
}

/** Whether a rule's word on a case could be lifted, and nothing must be put on first. */
function isNoWall(rule: Rule, at: Case): boolean {
  const finding = ask(rule, at)
  if (finding === undefined || finding.verdict === 'fits') return true
  return (isTakeable(finding.verdict) || isLiftable(finding)) && !needsFirst(finding)
}

/** A wall that no state takes down, whether it is on the way or at the end. */
function isStillWalled(start: DeviceState, move: Move): boolean {
  return [false, true].every((last) => {
    const held = heldAgainst(start, move, last)
    return held === undefined || RULES.some((rule) => !isMoved(rule) && !isNoWall(rule, held))
  })
}
