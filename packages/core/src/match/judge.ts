/**
 * Holding packages against a device: every finding of one, or only the verdict and the first reason of
 * many, and candidates in the order that an intent wants. Reads cases; gives verdicts with reasons.
 */
import { orderBuilds, readBuild } from '../build/grammar.ts'
import { settled } from '../device/identity.ts'
import type { Manifest, Shelved } from '../firmware/manifest.ts'
import type { Finding, Verdict } from '../verdict/verdict.ts'
import { gravestFirst, isTakeable, worst } from '../verdict/verdict.ts'
import type { Case } from './rule.ts'
import { ask } from './rule.ts'
import { RULES } from './rules.ts'

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
  let reason: Finding | undefined
  let verdict: Verdict = 'fits'
  for (const rule of RULES) {
    const finding = ask(rule, at)
    if (finding === undefined) continue
    if (finding.verdict === 'does-not-fit') return { verdict: 'does-not-fit', reason: finding }
    const next = worst([verdict, finding.verdict])
    if (next !== verdict) reason = finding
    verdict = next
  }
  return { verdict, reason }
}

/** Packages of the shelf that could be the aim (not parts), judged and in order. */
export function candidates(at: Omit<Case, 'shelved'>): readonly Judgement[] {
  const aims = at.shelf.filter(({ manifest }) => manifest.kind !== 'part')
  const judged = aims.map((shelved) => judge({ ...at, shelved }))
  const group = ({ verdict }: Judgement) =>
    isTakeable(verdict) ? 0 : verdict === 'cannot-tell' ? 1 : 2
  return [...judged].sort(
    (a, b) =>
      group(a) - group(b) ||
      promise(at, a) - promise(at, b) ||
      better(at, a.shelved.manifest, b.shelved.manifest) ||
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
function better(at: Omit<Case, 'shelved'>, a: Manifest, b: Manifest): number {
  const here = String(settled(at.identity, 'build') ?? '')
  const release = Number(settled(at.identity, 'release') ?? 0)
  const first = (wanted: (one: Manifest) => boolean) => Number(wanted(b)) - Number(wanted(a))
  const newer = compareBuilds(at, b.build, a.build)
  switch (at.intent) {
    case 'restore':
    case 'relock':
      return first((one) => one.build === here) || first((one) => one.release === release) || newer
    case 'downgrade':
      return first((one) => one.release < release) || b.release - a.release || newer
    case 'preview':
      return first((one) => one.channel !== 'stable') || newer
    case 'service':
      return first((one) => one.kind === 'service') || newer
    case 'update':
    case 'variant-change':
      return first((one) => one.channel === 'stable') || newer
  }
}

/** Positive when `a` is the newer build; 0 when the two have no order. */
function compareBuilds(at: Omit<Case, 'shelved'>, a: string, b: string): number {
  const one = readBuild(at.family.build, a)
  const other = readBuild(at.family.build, b)
  if (!one.ok || !other.ok) return 0
  const order = orderBuilds(at.family.build, one.value, other.value)
  return order === 'newer' ? 1 : order === 'older' ? -1 : 0
}
