/**
 * Lines of a slip: what a person says of one thing, under their name. A topic is one thing that can be
 * said; the newest line of a topic stands. Reads nothing; gives the closed list of topics, the stage each
 * belongs to and the answers it takes. What the topics mean for the work is `job`.
 */
import { SOURCES } from './device.ts'
import type { Role } from './people.ts'
import { SCHOOLS, SCHOOL_QUESTIONS } from './schools.ts'
import type { Stage } from './slip.ts'
import { INTENTS } from './slip.ts'
import { REMEDY_ACTS, TROUBLES } from './trouble.ts'

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
/** What the owner agrees to at the counter. */
export const CONSENTS = ['mark', 'preview', 'carried', 'no-guarantee'] as const
/** Those of them that only some packages need. */
export const ROAD_CONSENTS = ['mark', 'preview', 'carried'] as const
/** What the owner agrees to where a plan cannot keep a thing: for each fate that is not kept. */
export const FATE_CONSENTS = ['wiped', 'unreadable', 'unpromised'] as const
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
/** What is tried before any firmware, the least to lose first. */
export const LIGHTER = ['charge', 'restart', 'updater', 'cache', 'reset'] as const
/**
 * What a person makes sure of before a write; `battery` is the cell's look; `accounts` are its owner's, off together
 * with the screen lock, after which it is restarted once.
 */
export const CONFIRMATIONS = [
  'backup',
  'accounts',
  'restart',
  'battery',
  'cable',
  'permission',
  'out',
  'bench',
  'addons',
  'restore',
] as const
export const UNDONE = ['permission', 'key', 'copies'] as const

/** What is due on a slip on some day after it: looked at then, by whoever is at the counter. */
export const DUES = ['updates', 'patch', 'support', 'lock', 'permit'] as const
export type DueKind = (typeof DUES)[number]
export const dueTopic = (what: DueKind): string => `due.${what}`

const DAY = /^\d{4}-\d{2}-\d{2}$/
/** Whether an answer is a day that there is, as an ISO date. */
export const isDay = (text: string): boolean =>
  DAY.test(text) && isoDay(Date.parse(`${text}T00:00:00Z`)) === text
const isoDay = (at: number): string =>
  Number.isNaN(at) ? '' : new Date(at).toISOString().slice(0, 10)

/** One thing that can be said, and how it may be answered; no answers: a whole number. */
export type Topic = {
  readonly topic: string
  readonly stage: Stage
  readonly group: string
  readonly answers: readonly string[]
  /** The least role whose word this is; undefined: anybody's. */
  readonly least?: Role
  /** A reason must stand beside it. */
  readonly reason?: true
  /** Who may say it hangs on more than a role: it has an act of its own. */
  readonly apart?: true
  /** It is said after the slip was closed. */
  readonly after?: true
  /** A day is an answer too. */
  readonly day?: true
}

const each = (
  stage: Stage,
  group: string,
  names: readonly string[],
  answers: readonly string[],
): readonly Topic[] => names.map((name) => ({ topic: `${group}.${name}`, stage, group, answers }))

const WORKS = ['works', 'fails', 'untested'] as const
const SURVIVES = ['must', 'may-go', 'not-there'] as const
/** A copy that was made and opens, one that nobody wants, and one that cannot be made are three answers. */
/** Confirmations that have other answers than that it was done. */
const CONFIRMED: Readonly<Partial<Record<string, readonly string[]>>> = {
  backup: ['opens', 'not-wanted', 'impossible'],
  addons: ['done', 'none'],
  restore: ['shop', 'owner'],
}

/** Every topic but the family's own things, in the order in which they are asked. */
export const TOPICS: readonly Topic[] = [
  ...each('intake', 'owner', ['proof'], ['shown', 'not-shown']),
  ...each('intake', 'owner', ['managed'], ['not-managed', 'agreed', 'not-agreed']),
  ...each('intake', 'owner', ['account'], ['absent', 'owner-able', 'nobody']),
  ...each('intake', 'condition', ['cell'], ['sound', 'aged', 'damaged']),
  ...each('intake', 'condition', ['wet'], ['dry', 'wet']),
  ...each('intake', 'history', ['before'], ['untouched', 'tried']),
  /* Its system runs; it comes to a picture and no further, or again and again; no sign of life. */
  ...each('intake', 'history', ['starts'], ['runs', 'stops', 'silent']),
  ...each('intake', 'lighter', LIGHTER, ['cured', 'no-cure', 'not-wanted']),
  /* The variant that it is to be, and the build, where that was named. */
  ...each('intake', 'want', ['row', 'build'], []),
  /* A region, or here: by which law its radio is judged. */
  ...each('intake', 'use', ['region'], []),
  ...each('intake', 'consent', CONSENTS, ['yes', 'no']),
  ...each('intake', 'accessory', ACCESSORIES, ['here', 'none']),
  ...each('intake', 'function', FUNCTIONS, WORKS),
  ...each('intake', 'survive', THINGS, SURVIVES),
  ...each('readings', 'eye', ['board'], ['as-read']),
  /* What a screen or a label says, word for word: the answer names where it was seen. */
  ...each('readings', 'seen', ['text'], SOURCES),
  ...each('firmware', 'route', ['package'], []),
  /* A file that its maker signed is taken in by anybody who works here; what is typed is a lead's word. */
  ...each('firmware', 'permit', ['service'], []).map((one): Topic => ({ ...one, least: 'lead' })),
  /* Whom a house believes is a lead's to say, on one slip too. */
  ...SCHOOL_QUESTIONS.flatMap((question) =>
    each('firmware', 'depart', [question], SCHOOLS[question]).map((one): Topic => ({
      ...one,
      reason: true,
      ...(question === 'source' ? { least: 'lead' } : {}),
    })),
  ),
  ...each('proof', 'overrule', ['unpublished'], []).map((one): Topic => ({
    ...one,
    least: 'lead',
    reason: true,
  })),
  ...each('compare', 'compare', ['unread'], ['write-all']),
  ...each('ready', 'fate', FATE_CONSENTS, ['yes', 'no']),
  ...CONFIRMATIONS.flatMap((name) => each('ready', 'ready', [name], CONFIRMED[name] ?? ['done'])),
  ...each('ready', 'ready', ['leave'], ['waived']).map((one): Topic => ({
    ...one,
    least: 'technician',
    reason: true,
  })),
  ...each('write', 'screen', ['shows'], []),
  ...TROUBLES.flatMap((trouble) =>
    each('write', `tried.${trouble}`, REMEDY_ACTS, ['no-cure', 'untried']),
  ),
  /* Another plan on this slip, after a run of it has ended: what it is for. */
  ...each('first-start', 'again', ['plan'], INTENTS).map((one): Topic => ({
    ...one,
    least: 'technician',
  })),
  ...each('first-start', 'after', FUNCTIONS, WORKS),
  ...each('first-start', 'after', ['data'], ['as-promised', 'not-as-promised']),
  ...each('first-start', 'decided', ['first-start'], ['accepted']).map((one): Topic => ({
    ...one,
    reason: true,
  })),
  ...each('hand-back', 'undo', UNDONE, ['done', 'none']),
  ...each('hand-back', 'back', ['backup', 'addons'], ['done', 'not-wanted']),
  ...each('hand-back', 'back', [...ACCESSORIES, 'told'], ['done']),
  ...each('hand-back', 'care', ['well'], ['all-well']).map((one): Topic => ({
    ...one,
    after: true,
  })),
  ...each('hand-back', 'care', ['backup'], ['deleted']).map((one): Topic => ({
    ...one,
    after: true,
  })),
  ...each('hand-back', 'due', DUES, ['done', 'not-needed']).map((one): Topic => ({
    ...one,
    after: true,
    day: true,
  })),
]

/**
 * The family's own things are asked like the others: must they survive? A try to come into a mode is told by that mode. A rule that somebody overrules is a topic of
 * its own, whose answer names the packages; who may say it is the rule's.
 */
export const topicOf = (topic: string): Topic | undefined =>
  TOPICS.find((one) => one.topic === topic) ??
  (/^survive\.[a-z][a-z0-9-]{0,39}$/.test(topic)
    ? { topic, stage: 'intake', group: 'survive', answers: SURVIVES }
    : /^overrule(\.[a-zA-Z][a-zA-Z-]{0,30}){2,4}$/.test(topic)
      ? { topic, stage: 'firmware', group: 'overrule', answers: [], reason: true, apart: true }
      : /^way\.[a-z][a-z0-9-]{0,23}$/.test(topic)
        ? { topic, stage: 'readings', group: 'way', answers: ['arrived', 'missed'] }
        : undefined)

/** The topic of tries to come into a mode. */
export const wayTopic = (mode: string): string => `way.${mode}`

/** Characters of an answer; the longest is a route of several packages. */
const ANSWER_MOST = 1200

/** What was signed is taken back with this: then nobody said it. */
export const TAKEN_BACK = 'taken-back'

/** True when a topic takes this answer. Topics without a list take any short text. */
export function takes({ answers, day, group }: Topic, answer: string): boolean {
  /* Others are answered otherwise: an owner who agreed no longer says no. */
  if (answer === TAKEN_BACK) return group === 'ready'
  if (day === true && isDay(answer)) return true
  return answers.length === 0
    ? answer.length > 0 && answer.length <= ANSWER_MOST
    : answers.includes(answer)
}

/** A line as it was put down: `at` in ms of the shop's clock; `by`: who said it, where that is known. */
export type Line = {
  readonly topic: string
  readonly answer: string
  readonly at: number
  readonly by?: string | null
}

/** Groups whose words are for one plan; an owner's consent of the counter is asked again by the plan that needs it. */
export const FOR_A_PLAN: readonly string[] = ['ready', 'fate', 'consent']
/** Groups whose words are for the moment: said again, they count anew. */
const FOR_A_MOMENT: readonly string[] = ['decided', 'overrule', 'eye', 'way', 'seen', 'again']

/**
 * Whether a line would only repeat the one that stands: the same answer by the same person, no more. `ended`: the word
 * that stands does not hold any more, and is given anew. A consent of the counter is asked again by the plan that needs it.
 */
export function repeats(
  standing: Line | undefined,
  said: { readonly topic: string; readonly answer: string; readonly note: string },
  by: string | null,
  ended: boolean,
): boolean {
  if (said.answer === TAKEN_BACK) return standing === undefined
  if (standing === undefined || said.note !== '' || ended) return false
  if (FOR_A_MOMENT.includes(topicOf(said.topic)?.group ?? '')) return false
  return standing.answer === said.answer && (standing.by ?? null) === by
}

/** The newest answer of every topic; one that was taken back is none. */
export function standingLines(lines: readonly Line[]): ReadonlyMap<string, Line> {
  const newest = new Map<string, Line>()
  for (const line of [...lines].sort((a, b) => a.at - b.at))
    if (line.answer === TAKEN_BACK) newest.delete(line.topic)
    else newest.set(line.topic, line)
  return newest
}
