/**
 * Intake: what must be said before a device is worked on, and what ends the job there. Reads the standing
 * lines of a slip and the family's own things; gives what is still to be asked, what halts, and whether
 * the customer's data must survive.
 */
import type { Line, Topic } from '../terms/line.ts'
import { ACCESSORIES, FUNCTIONS, TOPICS, topicOf } from '../terms/line.ts'

export type Lines = ReadonlyMap<string, Line>
export const said = (lines: Lines, topic: string): string | undefined => lines.get(topic)?.answer

/** Answers that end the work, or hold it up: who declines, who stops. */
export const HALTS = ['account', 'cell', 'proof', 'managed', 'wet', 'guarantee'] as const
export type Halt = (typeof HALTS)[number]

const HALTING: readonly (readonly [Halt, topic: string, answer: string])[] = [
  ['cell', 'condition.cell', 'damaged'],
  ['account', 'owner.account', 'nobody'],
  ['proof', 'owner.proof', 'not-shown'],
  ['managed', 'owner.managed', 'not-agreed'],
  ['wet', 'condition.wet', 'wet'],
  ['guarantee', 'consent.no-guarantee', 'no'],
]

/** The gravest thing that was said against the work. */
export const haltOf = (lines: Lines): Halt | undefined =>
  HALTING.find(([, topic, answer]) => said(lines, topic) === answer)?.[0]

/** What a halting line makes of the slip, where it ends the work at once. */
export function endedBy(topic: string, answer: string): 'stopped' | 'declined' | undefined {
  if (topic === 'condition.cell' && answer === 'damaged') return 'stopped'
  if (topic === 'owner.account' && answer === 'nobody') return 'declined'
  return undefined
}

const MUST_BE_SAID = [
  'owner.proof',
  'owner.managed',
  'owner.account',
  'condition.cell',
  'condition.wet',
  'history.before',
  'consent.no-guarantee',
  ...ACCESSORIES.map((one) => `accessory.${one}`),
  ...FUNCTIONS.map((one) => `function.${one}`),
]

/** Topics that intake cannot do without, in the order in which they are asked. */
export function mustBeSaid(things: readonly string[], lines: Lines): readonly string[] {
  const theirs = things.map((thing) => `survive.${thing}`)
  const wipe = wishOf(lines) === 'may-go' ? ['consent.wipe'] : []
  return [...theirs, ...MUST_BE_SAID, ...wipe]
}

export const unsaid = (things: readonly string[], lines: Lines): readonly string[] =>
  mustBeSaid(things, lines).filter((topic) => !lines.has(topic))

/** What the customer wants of their data: one thing that must survive is enough; unsaid: it must. */
export function wishOf(lines: Lines): 'must' | 'may-go' | 'unsaid' {
  const wishes = [...lines].filter(([topic]) => topic.startsWith('survive.'))
  if (wishes.some(([, { answer }]) => answer === 'must')) return 'must'
  return wishes.length === 0 ? 'unsaid' : 'may-go'
}

/** Every topic that intake asks, the family's own things first. */
export const intakeTopics = (things: readonly string[]): readonly Topic[] => [
  ...things.flatMap((thing) => topicOf(`survive.${thing}`) ?? []),
  ...TOPICS.filter(({ stage }) => stage === 'intake'),
]
