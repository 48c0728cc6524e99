/**
 * Which facts the job needs, how each stands, and what waits for it. Reads an identity and judged
 * candidates; gives the facts in the order in which a person reads them, with the packages that cannot be
 * told yet for want of each.
 */
import { isKnown } from '../device/identity.ts'
import type { Identity } from '../device/identity.ts'
import type { Judgement } from '../match/judge.ts'
import { RULES } from '../match/rules.ts'
import { FACTS } from '../terms/device.ts'
import type { Fact } from '../terms/device.ts'

/** Rules' facts, the serial by which a device is known, and the build by which others are compared. */
export const NEEDED_FACTS: readonly Fact[] = FACTS.filter(
  (fact) =>
    fact === 'serial' || fact === 'build' || RULES.some(({ needs }) => needs.includes(fact)),
)

/** Needed facts that cannot be judged on. */
export const openFacts = (identity: Identity): readonly Fact[] =>
  NEEDED_FACTS.filter((fact) => !isKnown(identity, fact))

/** Titles of the candidates that cannot be told for want of a fact. */
export const waitingFor = (fact: Fact, judged: readonly Judgement[]): readonly string[] =>
  judged
    .filter(({ findings }) => findings.some(({ missing }) => missing.includes(fact)))
    .map(({ shelved }) => shelved.manifest.title)
