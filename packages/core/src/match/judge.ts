/**
 * Holding packages against a device: every finding of one, or only the verdict and the first reason of
 * many, and candidates in the order that an intent wants. Reads cases; gives verdicts with reasons.
 */
import { orderBuilds, readBuild } from '../build/grammar.ts'
import type { Manifest, Shelved } from '../firmware/manifest.ts'
import type { Finding, Verdict } from '../verdict/verdict.ts'
import { VERDICTS, gravestFirst, isTakeable, worst } from '../verdict/verdict.ts'
import { standsOn } from './stands.ts'
import type { Case, Rule, Unheld } from './rule.ts'
import { ask, verdictOf } from './rule.ts'
import { RULES } from './rules.ts'
import { isNamed } from './wanted.ts'

export type Judgement = {
  readonly shelved: Shelved
  readonly verdict: Verdict
  /** Gravest first. */
  readonly findings: readonly Finding[]
}

/** Every rule's finding on one package. */
export function judge(at: Case): Judgement {
  const findings = RULES.flatMap((rule) => ask(rule, at) ?? [])
  return {
    shelved: at.shelved,
    verdict: worst(findings.map(({ verdict }) => verdict)),
    findings: gravestFirst(findings),
  }
}

/** The verdict and its first reason, stopping at the first rule that rules the package out. */
export function firstReason(at: Case): {
  readonly verdict: Verdict
  readonly reason: Finding | undefined
} {
  let first: Rule | undefined
  let verdict: Verdict = 'fits'
  for (const rule of RULES) {
    const found = verdictOf(rule, at)
    if (found === undefined || VERDICTS.indexOf(found) <= VERDICTS.indexOf(verdict)) continue
    first = rule
    verdict = found
    if (found === 'does-not-fit') break
  }
  return { verdict, reason: first && ask(first, at) }
}

/** Whether a package could be what the owner wants: a part only where it is a variant that is wanted. */
export const isAim = ({ intent }: Pick<Case, 'intent'>, { manifest: { kind, images } }: Shelved) =>
  kind !== 'part' || (intent === 'variant-change' && images.some(({ role }) => role === 'variant'))

/** Packages of the shelf that could be the aim, judged alone and in order. */
export const candidates = (at: Unheld): readonly Judgement[] =>
  inOrder(
    at,
    at.shelf.filter((one) => isAim(at, one)).map((shelved) => judge({ ...at, shelved })),
  )

/** What can be taken first, and of each kind what serves the intent better; equals stay as they stand. */
export function inOrder<One extends Judgement>(
  at: Unheld,
  judged: readonly One[],
  ties: (a: One, b: One) => number = () => 0,
): readonly One[] {
  const group = ({ verdict }: Judgement) =>
    isTakeable(verdict) ? 0 : verdict === 'cannot-tell' ? 1 : 2
  return [...judged].sort(
    (a, b) =>
      group(a) - group(b) ||
      promise(at, a) - promise(at, b) ||
      better(at, a.shelved.manifest, b.shelved.manifest) ||
      ties(a, b) ||
      a.shelved.manifest.id.localeCompare(b.shelved.manifest.id),
  )
}

/** What keeps the slip's promise comes before what breaks it; where nothing must survive nothing is promised. */
function promise({ keepData }: Pick<Case, 'keepData'>, { findings }: Judgement): number {
  if (!keepData) return 0
  const data = findings.find(({ rule }) => rule === 'promise.data')
  return data === undefined || data.verdict === 'fits' ? 0 : 1
}

/** Negative when `a` serves the intent better than `b`. */
export function better(at: Unheld, a: Manifest, b: Manifest): number {
  const { build: here, release = 0 } = standsOn(at)
  const first = (wanted: (one: Manifest) => boolean) => Number(wanted(b)) - Number(wanted(a))
  const newer = compareBuilds(at, b.build, a.build)
  const isStable = (one: Manifest) => one.channel === 'stable'
  /* Whoever brought an image of their own for a build wants it with that build. */
  const own = b.build === a.build ? first((one) => one.carried !== undefined) : 0
  const named = own || first((one) => isNamed(at, one))
  if (named !== 0) return named
  switch (at.intent) {
    case 'restore':
    case 'relock':
      return (
        (at.house.build === 'same' ? first((one) => one.build === here) : 0) ||
        first(isStable) ||
        first((one) => one.release === release) ||
        newer
      )
    case 'downgrade':
      return (
        first(isStable) || first((one) => one.release < release) || b.release - a.release || newer
      )
    case 'preview':
      return first((one) => one.channel !== 'stable') || newer
    case 'service':
      return first((one) => one.kind === 'service') || newer
    case 'update':
    case 'leave-channel':
    case 'variant-change':
      return first(isStable) || newer
  }
}

/** Positive when `a` is the newer build; 0 when the two have no order. */
function compareBuilds(at: Unheld, a: string, b: string): number {
  const one = readBuild(at.family.build, a)
  const other = readBuild(at.family.build, b)
  if (!one.ok || !other.ok) return 0
  const order = orderBuilds(at.family.build, one.value, other.value)
  return order === 'newer' ? 1 : order === 'older' ? -1 : 0
}
