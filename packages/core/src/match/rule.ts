/**
 * What a rule of fit is, and how one is asked. A rule is one small pure object in one file: the facts it
 * needs, its check, whether it may be overruled. A missing fact makes "cannot tell"; a contradicted one
 * too, unless every claimed value gives the same verdict.
 */
import type { FactValue, Identity } from '../device/identity.ts'
import { valuesOf } from '../device/identity.ts'
import type { Evidence } from '../difference/least-write.ts'
import type { Family } from '../family/profile.ts'
import type { Shelved } from '../firmware/manifest.ts'
import type { Table } from '../layout/table.ts'
import type { Fact } from '../terms/device.ts'
import type { Intent } from '../terms/slip.ts'
import type { Finding, Mark, Verdict } from '../verdict/verdict.ts'

/** What the house has decided, as far as rules of fit need it. */
export type HouseRules = {
  /** Percent of charge left at the end, on top of what the plan drains. */
  readonly batteryMargin: number
  /** A fixed floor in percent, where the house sets one. */
  readonly batteryFloor: number | undefined
  /** Regions whose radio images may be operated here. */
  readonly lawfulRegions: readonly string[]
}

/** One package held against one device. */
export type Case = {
  readonly family: Family
  readonly identity: Identity
  readonly shelved: Shelved
  readonly house: HouseRules
  readonly intent: Intent
  /** True when the customer's data must survive. */
  readonly keepData: boolean
  /** The device's own table, where it was read. */
  readonly table: Table | undefined
  readonly evidence: ReadonlyMap<string, Evidence>
  /** Every package of the shelf, for what could come first. */
  readonly shelf: readonly Shelved[]
  /** True when somebody looked at the board since the readings that disagree with its fuses. */
  readonly byEye: boolean
  /** The customer's things that are on it, or may be, as far as the family has no place for them. */
  readonly placeless: readonly string[]
}

/** What a check answers: a verdict, the code and facts of its sentence, marks, a remedy. */
export type Answer = {
  readonly verdict: Verdict
  readonly code: string
  readonly facts?: Readonly<Record<string, string | number>>
  readonly marks?: readonly Mark[]
  readonly remedy?: string
}

export type Values = Readonly<Partial<Record<Fact, FactValue>>>

export type Rule = {
  readonly id: string
  readonly needs: readonly Fact[]
  /** True when nobody may overrule it. */
  readonly final: boolean
  /** Codes its answers use, for the catalogue. */
  readonly codes: readonly string[]
  /** Undefined: the rule does not concern this package. All needed facts have a value. */
  readonly check: (values: Values, at: Case) => Answer | undefined
}

/** Asks a rule; undefined when it does not concern the package. */
export function ask(rule: Rule, at: Case): Finding | undefined {
  const { missing, values } = standingOf(rule, at.identity)
  if (missing.length > 0)
    return rule.check({}, at) === undefined ? undefined : unknown(rule, missing)
  const answers = values.map((one) => rule.check(one, at))
  const [first] = answers
  if (answers.every((answer) => answer?.verdict === first?.verdict))
    return first === undefined ? undefined : found(rule, first)
  return unknown(
    rule,
    rule.needs.filter((fact) => at.identity[fact].kind === 'contradicted'),
  )
}

/** What an identity says of a rule's facts; kept, since a whole shelf is judged on one identity. */
type RuleStanding = { readonly missing: readonly Fact[]; readonly values: readonly Values[] }
const standings = new WeakMap<Identity, Map<Rule, RuleStanding>>()

function standingOf(rule: Rule, identity: Identity): RuleStanding {
  const known = standings.get(identity) ?? new Map<Rule, RuleStanding>()
  standings.set(identity, known)
  const standing = known.get(rule) ?? {
    missing: rule.needs.filter((fact) => valuesOf(identity, fact).length === 0),
    values: combinations(rule.needs, identity),
  }
  known.set(rule, standing)
  return standing
}

/** Every way in which the needed facts may stand. */
function combinations(facts: readonly Fact[], identity: Identity): readonly Values[] {
  return facts.reduce<readonly Values[]>(
    (all, fact) =>
      all.flatMap((values) =>
        valuesOf(identity, fact).map((value) => ({ ...values, [fact]: value })),
      ),
    [{}],
  )
}

function found(rule: Rule, answer: Answer): Finding {
  return {
    rule: rule.id,
    verdict: answer.verdict,
    code: answer.code,
    facts: answer.facts ?? {},
    marks: answer.marks ?? [],
    remedy: answer.remedy,
    missing: [],
    final: rule.final,
  }
}

function unknown(rule: Rule, missing: readonly Fact[]): Finding {
  return {
    rule: rule.id,
    verdict: 'cannot-tell',
    code: 'fit.cannot-tell',
    facts: { facts: missing.join(', ') },
    marks: [],
    remedy: 'read',
    missing,
    final: rule.final,
  }
}

/** The targets of a package; a rule of identity asks whether any of them admits a value. */
export const targetsOf = ({ shelved }: Case) => shelved.manifest.targets
export type Target = Shelved['manifest']['targets'][number]

/** The fields by which a target is for a board, and how each admits a value. */
export const TARGET_FIELDS: Readonly<
  Record<'model' | 'board' | 'chipset' | 'storageGb', (target: Target) => readonly FactValue[]>
> = {
  model: ({ model }) => [model],
  board: ({ boards }) => boards,
  chipset: ({ chipset }) => [chipset],
  storageGb: ({ storage }) => storage,
}
export type TargetField = keyof typeof TARGET_FIELDS
export const TARGET_FACTS = ['model', 'board', 'chipset', 'storageGb'] as const

/** Whether a target admits every value that is known of the fields. */
export const admits = (target: Target, values: Values): boolean =>
  TARGET_FACTS.every((fact) => {
    const value = values[fact]
    return value === undefined || TARGET_FIELDS[fact](target).includes(value)
  })

/** A plain identity rule: some target lists the value, or the package is for something else. */
export function listed(fact: TargetField, final: boolean): Rule {
  const of = TARGET_FIELDS[fact]
  const id = `identity.${fact}`
  const codes = [`fit.${id}.fits`, `fit.${id}.not`] as const
  return {
    id,
    needs: [fact],
    final,
    codes,
    check: (values, at) => {
      const value = values[fact]
      if (value !== undefined && targetsOf(at).some((target) => of(target).includes(value)))
        return { verdict: 'fits', code: codes[0], facts: { here: value } }
      const wanted = [...new Set(targetsOf(at).flatMap(of))].join(', ')
      return { verdict: 'does-not-fit', code: codes[1], facts: { here: value ?? '', wanted } }
    },
  }
}
