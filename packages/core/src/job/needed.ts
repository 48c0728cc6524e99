/**
 * Which facts the job needs, how each stands, and what waits for it. Reads an identity and judged
 * candidates; gives the facts in the order in which a person reads them, with the packages that cannot be
 * told yet for want of each.
 */
import { isKnown } from '../device/identity.ts'
import type { Identity } from '../device/identity.ts'
import type { Judgement } from '../match/judge.ts'
import { RULES } from '../match/rules.ts'
import { cannotStart } from '../match/starts.ts'
import type { Family } from '../family/profile.ts'
import { FACTS, FLOOR_FACTS, SERVICE_FACTS } from '../terms/device.ts'
import type { Fact } from '../terms/device.ts'

/** Rules' facts, the serial by which a device is known, and the build by which others are compared. */
const ALWAYS: readonly Fact[] = ['serial', 'build', 'release', 'patchDate']

/** Facts that only some packages ask for: they are read where one waits for them, and nobody else does. */
export const OF_SOME_PACKAGES: readonly Fact[] = [...SERVICE_FACTS, 'radioVersion']

/** Facts that some families have and others do not. */
const ASKED_WHERE_KEPT: readonly Fact[] = [...FLOOR_FACTS, 'merge']

const isNeeded = (fact: Fact): boolean =>
  ALWAYS.includes(fact) ||
  (!OF_SOME_PACKAGES.includes(fact) && RULES.some(({ needs }) => needs.includes(fact)))

/** Those that are asked of a family's device: a floor that it does not keep is none. */
export const neededFacts = ({ facts }: Pick<Family, 'facts'>): readonly Fact[] =>
  FACTS.filter(isNeeded).filter(
    (fact) => !ASKED_WHERE_KEPT.includes(fact) || facts[fact] !== undefined,
  )

type Asked = Pick<Family, 'facts' | 'modes'>
type Said = Parameters<typeof cannotStart>[0]

/** Over the link nothing but its running system tells it. */
const isOfTheSystem = ({ facts, modes }: Asked, fact: Fact): boolean => {
  const links = (facts[fact] ?? []).filter(({ source }) => source === 'link')
  const isSystem = (id: string) => modes.some((mode) => mode.id === id && mode.kind === 'system')
  return links.length > 0 && links.every((one) => one.modes !== 'any' && one.modes.every(isSystem))
}

/**
 * Those that are asked of this device. One that does not start has no running system: what over the link only that tells
 * is not waited for; what stands on it is told by its digests.
 */
export const askedFacts = (family: Asked, said: Said): readonly Fact[] =>
  neededFacts(family).filter((fact) => !(cannotStart(said) && isOfTheSystem(family, fact)))

/** Asked facts that cannot be judged on. */
export const openFacts = (family: Asked, identity: Identity, said: Said): readonly Fact[] =>
  askedFacts(family, said).filter((fact) => !isKnown(identity, fact))

/** Titles of the candidates that cannot be told for want of a fact. */
export const waitingFor = (fact: Fact, judged: readonly Judgement[]): readonly string[] =>
  judged
    .filter(({ findings }) => findings.some(({ missing }) => missing.includes(fact)))
    .map(({ shelved }) => shelved.manifest.title)
