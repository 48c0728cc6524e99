/**
 * Lines of a slip: what a person says of one thing, under their name. A topic is one thing that can be
 * said; the newest line of a topic stands. Reads nothing; gives the closed list of topics, the stage each
 * belongs to and the answers it takes. What the topics mean for the work is `job`.
 */
import type { Stage } from './slip.ts'

/** What people lose and rarely think of, asked item by item besides the family's own things. */
export const THINGS = [
  'photos',
  'apps',
  'accounts',
  'messages',
  'esim',
  'second-factor',
  'passkeys',
  'cards',
  'health',
  'work-profile',
] as const
export const CONSENTS = ['wipe', 'mark', 'preview', 'no-guarantee'] as const
export const ACCESSORIES = ['sim', 'card', 'case'] as const
export const FUNCTIONS = [
  'screen',
  'touch',
  'sound',
  'cameras',
  'sensors',
  'charging',
  'radio',
] as const
/** What a person makes sure of before a write; `battery` is the cell's look, `accounts` the owner's. */
export const CONFIRMATIONS = ['backup', 'battery', 'cable', 'permission', 'out', 'bench'] as const
export const UNDONE = ['permission', 'key', 'copies', 'backup'] as const

/** One thing that can be said, and how it may be answered; no answers: a whole number. */
export type Topic = {
  readonly topic: string
  readonly stage: Stage
  readonly group: string
  readonly answers: readonly string[]
}

const each = (
  stage: Stage,
  group: string,
  names: readonly string[],
  answers: readonly string[],
): readonly Topic[] => names.map((name) => ({ topic: `${group}.${name}`, stage, group, answers }))

const WORKS = ['works', 'fails', 'untested'] as const
const SURVIVES = ['must', 'may-go', 'not-there'] as const

/** Every topic but the family's own things, in the order in which they are asked. */
export const TOPICS: readonly Topic[] = [
  ...each('intake', 'owner', ['proof'], ['shown', 'not-shown']),
  ...each('intake', 'owner', ['managed'], ['not-managed', 'agreed', 'not-agreed']),
  ...each('intake', 'owner', ['account'], ['absent', 'owner-able', 'nobody']),
  ...each('intake', 'condition', ['cell'], ['sound', 'damaged']),
  ...each('intake', 'condition', ['wet'], ['dry', 'wet']),
  ...each('intake', 'history', ['before'], ['untouched', 'tried']),
  ...each('intake', 'consent', CONSENTS, ['yes', 'no']),
  ...each('intake', 'accessory', ACCESSORIES, ['here', 'none']),
  ...each('intake', 'function', FUNCTIONS, WORKS),
  ...each('intake', 'survive', THINGS, SURVIVES),
  ...each('firmware', 'route', ['package'], []),
  ...each('compare', 'compare', ['unread'], ['write-all']),
  ...each('ready', 'ready', CONFIRMATIONS, ['done']),
  ...each('write', 'screen', ['shows'], []),
  ...each('first-start', 'after', FUNCTIONS, WORKS),
  ...each('first-start', 'after', ['data'], ['as-promised', 'not-as-promised']),
  ...each('hand-back', 'undo', UNDONE, ['done', 'none']),
  ...each('hand-back', 'back', [...ACCESSORIES, 'told'], ['done']),
]

/** The family's own things are asked like the others: must they survive? */
export const topicOf = (topic: string): Topic | undefined =>
  TOPICS.find((one) => one.topic === topic) ??
  (/^survive\.[a-z][a-z0-9-]{0,39}$/.test(topic)
    ? { topic, stage: 'intake', group: 'survive', answers: SURVIVES }
    : undefined)

/** True when a topic takes this answer. Topics without a list take any short text. */
export function takes({ answers }: Topic, answer: string): boolean {
  return answers.length === 0 ? answer.length > 0 && answer.length <= 120 : answers.includes(answer)
}

/** A line as it was put down: `at` in ms of the shop's clock. */
export type Line = { readonly topic: string; readonly answer: string; readonly at: number }

/** The newest answer of every topic. */
export function standingLines(lines: readonly Line[]): ReadonlyMap<string, Line> {
  const newest = new Map<string, Line>()
  for (const line of [...lines].sort((a, b) => a.at - b.at)) newest.set(line.topic, line)
  return newest
}
