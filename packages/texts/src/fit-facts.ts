/**
 * Holds the sentences of the rules of fit against the rules: each has its sentence, each sentence its rule, and no
 * sentence asks for a fact that its rule does not say. A compile error here names the code that is wrong.
 */
import type { FitFacts, fit } from './en/fit.ts'
import type { Params } from './message.ts'

type Sentences = typeof fit
/** Codes without a sentence, or without a rule. */
type Unmatched = Exclude<keyof FitFacts, keyof Sentences> | Exclude<keyof Sentences, keyof FitFacts>
/** Codes whose sentence asks for a fact that the rule does not say. */
type Wanting = {
  [Code in keyof Sentences & keyof FitFacts]: [
    Exclude<keyof Params<Sentences[Code]>, FitFacts[Code]>,
  ] extends [never]
    ? never
    : Code
}[keyof Sentences & keyof FitFacts]

type None<Codes extends never> = Codes
/** Never anything: the compiler says which code stands in its way. */
export type FitHolds = None<Unmatched> | None<Wanting>
