/**
 * Turns a code and its parameters into a sentence of a language. Reads the one catalogue; every part
 * of the product that speaks to a person speaks through here. Messages are ICU MessageFormat.
 */
import { IntlMessageFormat } from 'intl-messageformat'
import { en } from './en/index.ts'
import { pseudo } from './pseudo.ts'
import type { Params } from './message.ts'

export type Code = keyof typeof en
export type ParamsOf<C extends Code> = Params<(typeof en)[C]>

/** Codes of sentences that ask for nothing. */
export type PlainCode = { [C in Code]: unknown extends ParamsOf<C> ? C : never }[Code]

/** A language is the whole catalogue again; a code left out falls back to English. */
export type Catalogue = { readonly [C in Code]?: string }

/** `en-GB` is the house's own; `pseudo` is English dressed up, to find sentences that escaped. */
export const LANGUAGES = ['en-GB', 'pseudo'] as const
export type Language = (typeof LANGUAGES)[number]

let dressed: Catalogue | undefined
/** Few ever ask for the one that is dressed up: it is made when somebody does. */
const catalogueOf = (language: Language): Catalogue =>
  language === 'en-GB' ? en : (dressed ??= pseudo(en))
const compiled = new Map<string, IntlMessageFormat>()

/** A sentence. Parameters are checked against the English message's own. */
export type Say = <C extends Code>(
  code: C,
  ...params: unknown extends ParamsOf<C> ? [] : [ParamsOf<C>]
) => string

/** The speaker of one language. Sentences are compiled once and kept. */
export function speaker(language: Language): Say {
  return (code, ...params) => format(language, code, params[0])
}

/** The same for a code known only at run time (an error's, a rule's); the caller vouches for params. */
export function sayAny(
  language: Language,
  code: Code,
  params: Readonly<Record<string, string | number>>,
): string {
  return format(language, code, params)
}

/** The same, with a gap where a parameter that the sentence names is not given. */
export function sayWithGaps(
  language: Language,
  code: Code,
  params: Readonly<Record<string, string | number>>,
): string {
  for (const gap of ['…', 0])
    try {
      return format(language, code, withGaps(params, gap))
    } catch {
      continue
    }
  return catalogueOf(language)[code] ?? code
}

/** Every parameter is there: those that are not given are the gap. */
const withGaps = (params: Readonly<Record<string, string | number>>, gap: string | number) =>
  new Proxy(params, { has: () => true, get: (all, name) => all[String(name)] ?? gap })

/** True when the catalogue holds this code. */
export function isCode(code: string): code is Code {
  return Object.hasOwn(en, code)
}

function format(language: Language, code: Code, params: unknown): string {
  const key = `${language} ${code}`
  const message =
    compiled.get(key) ??
    new IntlMessageFormat(catalogueOf(language)[code] ?? en[code], 'en-GB', undefined, {
      ignoreTag: true,
    })
  compiled.set(key, message)
  return String(message.format(params as Record<string, string | number> | undefined))
}

/** Facts of a finding that name facts or sources, and the words they are said by. */
const NAMING: Readonly<Record<string, string>> = {
  facts: 'fact',
  fact: 'fact',
  sources: 'source',
  things: 'topic.survive',
}

/** A finding's sentence, its facts by their names; a code that this catalogue does not know is shown as it is. */
export function findingWords(
  language: Language,
  {
    code,
    facts,
  }: { readonly code: string; readonly facts: Readonly<Record<string, string | number>> },
): string {
  if (!isCode(code)) return code
  const named = Object.entries(facts).map(([name, value]) => {
    const kind = NAMING[name]
    return [name, kind === undefined ? value : namesIn(language, kind, String(value))] as const
  })
  return sayAny(language, code, Object.fromEntries(named))
}

/** A name that stands within a sentence begins small. */
const inMiddle = (name: string): string => name.charAt(0).toLowerCase() + name.slice(1)

const namesIn = (language: Language, kind: string, list: string): string =>
  list
    .split(', ')
    .map((one) => {
      const code = `${kind}.${one}`
      return isCode(code) ? inMiddle(sayAny(language, code, {})) : one
    })
    .join(', ')
