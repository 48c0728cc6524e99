/**
 * Intake: what must be said before a device is worked on, and what ends the job there. Reads the standing
 * lines of a slip and the family's own things; gives what is still to be asked, what halts, and whether
 * the customer's data must survive.
 */
import { ROW_TOPIC } from '../match/wanted.ts'
import type { Line, Topic } from '../terms/line.ts'
import { ACCESSORIES, FUNCTIONS, THINGS, TOPICS, topicOf } from '../terms/line.ts'

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

/** Said against the work: a halt of Intake, or the owner's "no" to what a plan needs their word for. */
export const isAgainst = (topic: string, answer: string): boolean =>
  HALTING.some((one) => one[1] === topic && one[2] === answer) ||
  (answer === 'no' && /^(fate|consent)\./.test(topic))

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

/** Everything that a customer may lose: the family's own things, then what people rarely think of. */
export const thingsOf = (own: readonly string[]): readonly string[] => [
  ...own,
  ...THINGS.filter((one) => !own.includes(one)),
]

/**
 * Topics that intake cannot do without, in the order in which they are asked. Which variant it is to be is asked where
 * another one is wanted: else one that nobody asked for would do.
 */
export const mustBeSaid = (own: readonly string[], asksRow = false): readonly string[] => [
  ...thingsOf(own).map((thing) => `survive.${thing}`),
  ...MUST_BE_SAID,
  ...(asksRow ? [ROW_TOPIC] : []),
]

export const unsaid = (own: readonly string[], lines: Lines, asksRow = false): readonly string[] =>
  mustBeSaid(own, asksRow).filter((topic) => !lines.has(topic))

/**
 * What the customer wants of their data: one thing that must survive is enough, and a thing that nobody
 * asked about counts as one. They may go only when each was asked and none must stay.
 */
export function wishOf(own: readonly string[], lines: Lines): 'must' | 'may-go' {
  const answers = thingsOf(own).map((thing) => said(lines, `survive.${thing}`))
  return answers.some((answer) => answer === undefined || answer === 'must') ? 'must' : 'may-go'
}

/** Things that are on the device, or may be: all but those of which somebody said that they are not. */
export const thingsThere = (own: readonly string[], lines: Lines): readonly string[] =>
  thingsOf(own).filter((thing) => said(lines, `survive.${thing}`) !== 'not-there')

/** Those of them that must survive. */
export const thingsWanted = (own: readonly string[], lines: Lines): readonly string[] =>
  thingsThere(own, lines).filter((thing) => said(lines, `survive.${thing}`) !== 'may-go')

/** Every topic that intake asks, the family's own things first. */
export const intakeTopics = (things: readonly string[]): readonly Topic[] => [
  ...things.flatMap((thing) => topicOf(`survive.${thing}`) ?? []),
  ...TOPICS.filter(
    ({ stage, topic }) =>
      stage === 'intake' && !things.some((thing) => topic === `survive.${thing}`),
  ),
]
