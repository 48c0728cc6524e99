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

/**
 * What stands beside a verdict and is none. *Old*, *thin*, *person*: what it rests on was seen long ago, on few devices,
 * or is one person's word.
 */
export type Mark =
  | { readonly kind: 'irreversible' }
  | { readonly kind: 'risky'; readonly seconds: number }
  | { readonly kind: 'old'; readonly date: string }
  | { readonly kind: 'thin'; readonly devices: number }
  | { readonly kind: 'person' }

/** Who may overrule a rule: anybody with a reason, a lead with one, a lead and a second person, nobody. */
export const OVERRULERS = ['anyone', 'lead', 'two', 'nobody'] as const
export type Overruler = (typeof OVERRULERS)[number]

/** What a person can do about a finding, on a page or by hand; *along*: the plan does it by itself. */
export const REMEDIES = [
  'read',
  'look',
  'by-eye',
  'ask',
  'fetch',
  'publish',
  'charge',
  'consent',
  'permit',
  'card',
  'along',
  'overruled',
] as const
export type Remedy =
  | { readonly kind: 'read'; readonly facts: readonly string[] }
  | { readonly kind: 'look'; readonly what: string }
  | { readonly kind: 'ask'; readonly topic: string }
  /** `first`: the package that goes on before; `act`: what is done before. */
  | { readonly kind: 'along'; readonly first?: string; readonly act?: string }
  | { readonly kind: Exclude<(typeof REMEDIES)[number], 'read' | 'look' | 'ask' | 'along'> }

/**
 * What a rule found: its verdict, the code and parameters of its sentence, and what would mend it.
 * `missing`: the facts without which it cannot tell.
 */
export type Finding = {
  readonly rule: string
  readonly verdict: Verdict
  readonly code: string
  readonly facts: Readonly<Record<string, string | number>>
  readonly marks: readonly Mark[]
  readonly remedy: Remedy | undefined
  readonly missing: readonly string[]
  readonly overruled: Overruler
}

/** Gravest first; equals keep the order in which the rules stand. */
export function gravestFirst(findings: readonly Finding[]): readonly Finding[] {
  return [...findings].sort((a, b) => VERDICTS.indexOf(b.verdict) - VERDICTS.indexOf(a.verdict))
}
