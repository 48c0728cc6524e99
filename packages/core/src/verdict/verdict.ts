/**
 * The four verdicts, their order, how they combine, and what a rule answers. Reads nothing; gives the
 * shapes that every rule of fit shares.
 */

/** From best to worst. */
export const VERDICTS = ['fits', 'fits-if', 'cannot-tell', 'does-not-fit'] as const
export type Verdict = (typeof VERDICTS)[number]

/** The worst of several; nothing said is "fits". */
export function worst(verdicts: readonly Verdict[]): Verdict {
  const rank = Math.max(0, ...verdicts.map((verdict) => VERDICTS.indexOf(verdict)))
  return VERDICTS[rank] ?? 'fits'
}

/** True for what can be taken, at once or once its conditions are met. */
export const isTakeable = (verdict: Verdict): boolean => verdict === 'fits' || verdict === 'fits-if'

/** What stands beside a verdict and is none. */
export type Mark =
  { readonly kind: 'irreversible' } | { readonly kind: 'risky'; readonly seconds: number }

/**
 * What a rule found: its verdict, the fact it rests on, the code and parameters of its sentence, and
 * what would mend it. `missing`: the facts without which it cannot tell.
 */
export type Finding = {
  readonly rule: string
  readonly verdict: Verdict
  readonly code: string
  readonly facts: Readonly<Record<string, string | number>>
  readonly marks: readonly Mark[]
  readonly remedy: string | undefined
  readonly missing: readonly string[]
  /** True when nobody may overrule it. */
  readonly final: boolean
}

/** Gravest first; equals keep the order in which the rules stand. */
export function gravestFirst(findings: readonly Finding[]): readonly Finding[] {
  return [...findings].sort((a, b) => VERDICTS.indexOf(b.verdict) - VERDICTS.indexOf(a.verdict))
}

/**
 * One finding overruled: it becomes fits-if and says so. A final one, and any other verdict than
 * does-not-fit, stays as it is.
 */
export function overrule(finding: Finding): Finding {
  if (finding.final || finding.verdict !== 'does-not-fit') return finding
  return { ...finding, verdict: 'fits-if', remedy: 'overruled' }
}
