/**
 * What a rule of fit is, and how one is asked. A rule is one small pure object in one file: what it reads, who may
 * overrule it, what it can say, its check. It is handed what it declared and nothing else; a fact that is missing
 * makes "cannot tell", and so does anything else that it asks for and nobody read. A contradicted fact is missing
 * too, unless every claimed value gives the same verdict.
 */
import type { FactValue, Identity } from '../device/identity.ts'
import { valuesOf } from '../device/identity.ts'
import type { Evidence } from '../difference/least-write.ts'
import type { Family } from '../family/profile.ts'
import type { Manifest, Shelved } from '../firmware/manifest.ts'
import type { Table } from '../layout/table.ts'
import type { MoveAct, Fact, Store } from '../terms/device.ts'
import type { Line } from '../terms/line.ts'
import type { Intent } from '../terms/slip.ts'
import type { Finding, Mark, Overruler, Remedy, Verdict } from '../verdict/verdict.ts'
import type { HouseRules } from './house.ts'
import type { BroughtPermit } from './permit.ts'

/** What the book knows of this device, as far as rules need it. */
export type History = {
  /** Serial numbers under which a device answered on this slip, the newest last. */
  readonly serials: readonly string[]
  /** Ids of permits that runs have used. */
  readonly permitsUsed: readonly string[]
}
export const NO_HISTORY: History = { serials: [], permitsUsed: [] }

/** One package held against one device. `undefined` of anything: nobody read or said it. */
export type Case = {
  readonly family: Family
  readonly identity: Identity
  readonly shelved: Shelved
  /** How it is to go on: image by image, or installed from a store; undefined: in whatever way it can. */
  readonly way?: 'images' | Store | undefined
  /** What is done, where no package is put on: `shelved` is the one that was put on before then. */
  readonly act?: MoveAct | undefined
  readonly house: HouseRules
  readonly intent: Intent
  /** True when the customer's data must survive. */
  readonly keepData: boolean
  /** The customer's data were wiped on the way, and it was started since or not; undefined: they are there. */
  readonly data?: 'gone' | 'new' | undefined
  /** The device's own table, where it was read. */
  readonly table: Table | undefined
  readonly evidence: ReadonlyMap<string, Evidence>
  /** Every package of the shelf, for what could come first. */
  readonly shelf: readonly Shelved[]
  /** True when somebody looked at the board since the readings that disagree with its fuses. */
  readonly byEye: boolean
  /** The customer's things that are on it, or may be, as far as the family has no place for them. */
  readonly placeless: readonly string[]
  /** What people said, by topic; undefined: there is no slip, and nobody was asked. */
  readonly lines: ReadonlyMap<string, Line> | undefined
  readonly history: History
  /** The permit of its maker's that was brought for it. */
  readonly permit?: BroughtPermit | undefined
  /** The day it is, as an ISO date. */
  readonly today: string | undefined
  /** Rules that people overruled for a package, by its key. */
  readonly overruled?: ReadonlyMap<string, readonly string[]>
}

/** A case before a package is held against it. */
export type Unheld = Omit<Case, 'shelved' | 'way' | 'act'>

/** What every rule has at hand: the family it is of and the package it judges. */
export type Ground = Pick<Case, 'family' | 'shelved'>
/** What else may be read, by name. */
export type Input = Exclude<keyof Case, keyof Ground | 'overruled'>

/** What a rule can say: the verdict of each, and the facts of its sentence. */
export type Says = Readonly<Record<string, readonly [Verdict, ...string[]]>>
type FactsOf<Said> = Said extends readonly [Verdict, ...infer Names extends string[]]
  ? { readonly [Name in Names[number]]: string | number }
  : never
/** What a check answers: one of what its rule can say, with marks, and what would mend it. */
export type Answer<S extends Says> = {
  [K in keyof S & string]: {
    readonly say: K
    readonly facts: FactsOf<S[K]>
    readonly marks?: readonly Mark[]
    readonly remedy?: Remedy
    /** What it rests on, where that is no reading: it weakens with age, and where it is thin. */
    readonly rests?: { readonly date: string; readonly on: number | 'person' }
  }
}[keyof S & string]

type Values<Needed extends Fact, Seen extends Fact> = {
  readonly [F in Needed]: FactValue
} & { readonly [F in Seen]?: FactValue }

type Declared<
  Needed extends Fact,
  Seen extends Fact,
  Asked extends Input,
  Read extends Input,
  S extends Says,
> = {
  readonly id: string
  readonly overruled: Overruler
  /** Facts without which it cannot tell. */
  readonly needs?: readonly Needed[]
  /** Facts that it reads where they are settled, and can do without. */
  readonly sees?: readonly Seen[]
  /** What else it cannot do without. */
  readonly asks?: readonly Asked[]
  /** What else it reads, where it is there. */
  readonly reads?: readonly Read[]
  readonly says: S
  /**
   * Whether another package brings what this one asks, if that goes on before; left out: none makes it hold where it
   * does not.
   */
  readonly brought?: (asking: Manifest, other: Manifest) => boolean
  /**
   * All that it reads of a package, as a text: of packages that are alike in this it says the same. Left out: each is
   * asked by itself.
   */
  readonly alike?: (manifest: Manifest) => string
  /** Acts that bring it, if they are done before. */
  readonly broughtBy?: readonly MoveAct[]
  /** Acts of which it is asked, and whether it is asked of packages as well; left out: of packages alone. */
  readonly acts?: readonly MoveAct[]
  readonly packs?: false
  /** Whether it concerns this package; left out: every one. */
  readonly concerns?: (at: Ground & Pick<Case, Read>) => boolean
  /** Undefined: it does not concern it after all. */
  readonly check: (
    values: Values<Needed, Seen>,
    at: Ground & { readonly [I in Asked]: NonNullable<Case[I]> } & Pick<Case, Read>,
  ) => Answer<S> | undefined
}

/** A rule as it is asked. */
export type Rule = {
  readonly id: string
  readonly overruled: Overruler
  readonly needs: readonly Fact[]
  readonly sees: readonly Fact[]
  readonly asks: readonly Input[]
  readonly reads: readonly Input[]
  readonly says: Says
  readonly brought: ((asking: Manifest, other: Manifest) => boolean) | undefined
  readonly alike: ((manifest: Manifest) => string) | undefined
  readonly broughtBy: readonly MoveAct[]
  readonly acts: readonly MoveAct[]
  readonly packs: boolean
  readonly concerns: (at: Case) => boolean
  readonly check: (values: Partial<Record<Fact, FactValue>>, at: Case) => Answer<Says> | undefined
}

/** A rule with the sentences it asks the catalogue for. */
export type Told<Id extends string, S extends Says> = Omit<Rule, 'id' | 'says'> & {
  readonly id: Id
  readonly says: S
}

/** Declares a rule: the compiler hands its check what it declared, and no more. */
export function rule<
  const Id extends string,
  const Needed extends Fact = never,
  const Seen extends Fact = never,
  const Asked extends Input = never,
  const Read extends Input = never,
  const S extends Says = Says,
>(declared: Declared<Needed, Seen, Asked, Read, S> & { readonly id: Id }): Told<Id, S> {
  const needs = declared.needs ?? []
  const { id, overruled, sees = [], asks = [], reads = [], says } = declared
  const check = declared.check as unknown as Rule['check']
  const concerns = (declared.concerns ?? (() => true)) as Rule['concerns']
  const { brought, alike, broughtBy = [], acts = [], packs = true } = declared
  const reading = { needs, sees, asks, reads }
  return {
    id,
    overruled,
    ...reading,
    says,
    brought,
    alike,
    broughtBy,
    acts,
    packs,
    concerns,
    check,
  }
}

/** The code of a sentence in the catalogue. */
export const codeOf = ({ id }: Pick<Rule, 'id'>, say: string): string => `fit.${id}.${say}`
/** Every code that a rule can say. */
export const codesOf = (one: Rule): readonly string[] =>
  Object.keys(one.says).map((say) => codeOf(one, say))

/** Asks a rule; undefined when it does not concern the package. */
export function ask(one: Rule, at: Case): Finding | undefined {
  const answer = answered(one, at)
  if (answer === undefined) return undefined
  return 'say' in answer ? found(one, answer, at) : unread(one, answer.facts, answer.inputs)
}

/** A rule's verdict alone: a whole shelf is gone through by it. */
export function verdictOf(one: Rule, at: Case): Verdict | undefined {
  const answer = answered(one, at)
  if (answer === undefined) return undefined
  return 'say' in answer ? standsAs(one, answer, at) : 'cannot-tell'
}

type Unread = { readonly facts: readonly Fact[]; readonly inputs: readonly Input[] }

/** What a rule answers, or what it would have had to read. */
function answered(one: Rule, at: Case): Answer<Says> | Unread | undefined {
  if (!isAsked(one, at) || !one.concerns(at)) return undefined
  const { missing, contradicted, values } = standingOf(one, at.identity)
  const hasAll = one.asks.every((input) => at[input] !== undefined)
  if (missing.length > 0 || !hasAll)
    return { facts: missing, inputs: one.asks.filter((input) => at[input] === undefined) }
  const [alone, ...others] = values
  const first = one.check(alone ?? {}, at)
  if (others.length === 0) return first
  const verdict = first && one.says[first.say]?.[0]
  const agree = others.every((claimed) => {
    const answer = one.check(claimed, at)
    return (answer && one.says[answer.say]?.[0]) === verdict
  })
  return agree ? first : { facts: contradicted, inputs: [] }
}

/** Whether a rule is asked of a case: of a package, or of what is done. */
export const isAsked = ({ acts, packs }: Rule, { act }: Case): boolean =>
  act === undefined ? packs : acts.includes(act)

/** What an identity says of a rule's facts; kept, since a whole shelf is judged on one identity. */
type RuleStanding = {
  readonly missing: readonly Fact[]
  readonly contradicted: readonly Fact[]
  readonly values: readonly Partial<Record<Fact, FactValue>>[]
}
const standings = new WeakMap<Identity, Map<Rule, RuleStanding>>()

function standingOf(one: Rule, identity: Identity): RuleStanding {
  let known = standings.get(identity)
  if (known === undefined) standings.set(identity, (known = new Map()))
  let standing = known.get(one)
  if (standing === undefined) known.set(one, (standing = standingIn(one, identity)))
  return standing
}

function standingIn(one: Rule, identity: Identity): RuleStanding {
  const { needs } = one
  const seen = one.sees.filter((fact) => valuesOf(identity, fact).length > 0)
  return {
    missing: needs.filter((fact) => valuesOf(identity, fact).length === 0),
    contradicted: [...needs, ...seen].filter((fact) => identity[fact].kind === 'contradicted'),
    values: combinations([...needs, ...seen], identity),
  }
}

/** Every way in which the facts may stand. */
function combinations(
  facts: readonly Fact[],
  identity: Identity,
): readonly Partial<Record<Fact, FactValue>>[] {
  return facts.reduce<readonly Partial<Record<Fact, FactValue>>[]>(
    (all, fact) =>
      all.flatMap((values) =>
        valuesOf(identity, fact).map((value) => ({ ...values, [fact]: value })),
      ),
    [{}],
  )
}

/** The verdict of an answer; one that people overruled for this package is a condition. */
function standsAs(one: Rule, { say }: Answer<Says>, at: Case): Verdict {
  const verdict = one.says[say]?.[0] ?? 'cannot-tell'
  return verdict === 'does-not-fit' && isOverruled(one, at) ? 'fits-if' : verdict
}

const isOverruled = ({ id, overruled }: Rule, at: Case): boolean =>
  overruled !== 'nobody' && at.overruled?.get(at.shelved.key)?.includes(id) === true

function found(one: Rule, answer: Answer<Says>, at: Case): Finding {
  const verdict = standsAs(one, answer, at)
  const taken = verdict !== one.says[answer.say]?.[0]
  return {
    rule: one.id,
    verdict,
    code: codeOf(one, answer.say),
    facts: answer.facts,
    marks: [...(answer.marks ?? []), ...weakness(answer.rests, at.today)],
    remedy: taken ? { kind: 'overruled' } : answer.remedy,
    missing: [],
    overruled: one.overruled,
  }
}

/** Days after which what was once seen is old, and devices fewer than which show little. */
const OLD_DAYS = 365
const FEW_DEVICES = 5
const DAY_MS = 86_400_000

function weakness(rests: Answer<Says>['rests'], today: string | undefined): readonly Mark[] {
  if (rests === undefined) return []
  const days =
    today === undefined ? 0 : Math.floor((Date.parse(today) - Date.parse(rests.date)) / DAY_MS)
  return [
    ...(days > OLD_DAYS ? [{ kind: 'old', date: rests.date } as const] : []),
    ...(rests.on === 'person' ? [{ kind: 'person' } as const] : []),
    ...(rests.on !== 'person' && rests.on < FEW_DEVICES
      ? [{ kind: 'thin', devices: rests.on } as const]
      : []),
  ]
}

/** What a rule that cannot tell would have read: facts, and what else nobody read. */
function unread(one: Rule, facts: readonly Fact[], inputs: readonly Input[]): Finding {
  const missing = [...facts, ...inputs]
  const [input] = inputs
  return {
    rule: one.id,
    verdict: 'cannot-tell',
    code: 'fit.cannot-tell',
    facts: { facts: missing.join(', ') },
    marks: [],
    remedy:
      facts.length > 0 || input === undefined
        ? { kind: 'read', facts }
        : { kind: 'look', what: input },
    missing: facts,
    overruled: one.overruled,
  }
}
