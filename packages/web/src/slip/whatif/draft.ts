/** What is supposed, as it is put together: one thing after the other; and what of it a slip can take over. */
import type { Fact, Intent, SchoolQuestion, Supposed } from '@plain-slate/core'
import { FACTS, INTENTS, NUMBERS, SCHOOLS, SCHOOL_QUESTIONS, departTopic } from '@plain-slate/core'

/** What people may be supposed to say. */
const LINES = ['consent.preview', 'consent.mark', 'accessory.card'] as const
type LineTopic = (typeof LINES)[number]

/** One thing that may be supposed; what it may be, or nothing where it is typed. */
export type Thing =
  | { readonly kind: 'intent'; readonly name: 'intent'; readonly of: readonly Intent[] }
  | { readonly kind: 'data'; readonly name: 'data'; readonly of: readonly string[] }
  | { readonly kind: 'line'; readonly name: LineTopic; readonly of: readonly string[] }
  | { readonly kind: 'house'; readonly name: SchoolQuestion; readonly of: readonly string[] }
  | { readonly kind: 'fact'; readonly name: Fact; readonly of: undefined }

export const THINGS_SUPPOSED: readonly Thing[] = [
  { kind: 'intent', name: 'intent', of: INTENTS },
  { kind: 'data', name: 'data', of: ['must', 'may-go'] },
  ...LINES.map((name) => ({
    kind: 'line' as const,
    name,
    of: name === 'accessory.card' ? ['here', 'none'] : ['yes', 'no'],
  })),
  ...SCHOOL_QUESTIONS.map((name) => ({ kind: 'house' as const, name, of: SCHOOLS[name] })),
  ...FACTS.map((name) => ({ kind: 'fact' as const, name, of: undefined })),
]

export const nameOf = ({ kind, name }: Pick<Thing, 'kind' | 'name'>): string => `${kind} ${name}`

export type Item = { readonly thing: Thing; value: string }

/** A fact without a value is one that nobody had read. */
const valueOf = (fact: Fact, text: string) => {
  const trimmed = text.trim()
  if (trimmed === '') return null
  return NUMBERS.includes(fact) && /^\d+$/.test(trimmed) ? Number(trimmed) : trimmed
}

export function supposedOf(items: readonly Item[]): Supposed {
  const of = (kind: Thing['kind']) => items.filter(({ thing }) => thing.kind === kind)
  const [intent] = of('intent')
  const [data] = of('data')
  const all = (kind: Thing['kind']) =>
    Object.fromEntries(of(kind).map(({ thing, value }) => [thing.name, value]))
  const facts = of('fact').map(({ thing, value }) => [
    thing.name,
    valueOf(thing.name as Fact, value),
  ])
  return {
    ...(intent === undefined ? {} : { intent: intent.value as Intent }),
    ...(data === undefined ? {} : { keepData: data.value === 'must' }),
    facts: Object.fromEntries(facts) as NonNullable<Supposed['facts']>,
    lines: all('line'),
    house: all('house'),
  }
}

/** Lines that a slip takes over: what people say, and where it departs from its house. */
export const linesOf = (
  items: readonly Item[],
): readonly { readonly topic: string; readonly answer: string }[] =>
  items.flatMap(({ thing, value }) => {
    if (thing.kind === 'line') return [{ topic: thing.name, answer: value }]
    return thing.kind === 'house' ? [{ topic: departTopic(thing.name), answer: value }] : []
  })

/** The wish that a slip takes over; undefined: it stays what it is. */
export const intentOf = (items: readonly Item[]): Intent | undefined => supposedOf(items).intent
