/** What a walk itself remembers of what was acknowledged, so that laws are not asked of the product's own reckoning. */
import type { Job, Ready, RunShown } from '@plain-slate/api'
import type { Kind } from './law-shop.ts'

/** A word that the server took: in which act it was said, and when by the shop's clock. */
export type Word = {
  readonly topic: string
  readonly answer: string
  readonly act: number
  readonly at: number
}

export type Memory = {
  readonly kind: Kind
  readonly serial: string
  port: string
  number: string | undefined
  /** Acts that were done so far. */
  act: number
  readonly words: Word[]
  readonly notes: string[]
  /** Other slips that this walk opened. */
  readonly others: string[]
  /** The plan that was taken last. */
  plan: { readonly digest: string; readonly act: number; readonly at: number } | undefined
  /** Fates of the plan that was taken, of things that are there. */
  fates: readonly string[]
  run: string | undefined
  isRead: boolean
  isDeep: boolean
  /** Routes that were there when one was picked last; undefined: nobody looked since it was read. */
  routes: number | undefined
  /** Since which act something stands against the work that was said while the run lived. */
  heldSince: number | undefined
}

/** What stands after an act, as the server shows it and as its tables have it. */
export type View = {
  readonly state: string | undefined
  readonly job: Job | undefined
  readonly ready: Ready | undefined
  readonly run: RunShown | undefined
  /** Runs of the shop that live: neither ended nor put away. */
  readonly alive: readonly {
    readonly id: string
    readonly slip: string
    readonly serial: string
    readonly state: string
    readonly against: unknown
    readonly slipState: string
  }[]
  /** Open slips that claim its device by what was read of it over the link. */
  readonly claims: readonly string[]
}

export const newMemory = (kind: Kind, serial: string, port: string): Memory => ({
  kind,
  serial,
  port,
  number: undefined,
  act: 0,
  words: [],
  notes: [],
  others: [],
  plan: undefined,
  fates: [],
  run: undefined,
  isRead: false,
  isDeep: false,
  routes: undefined,
  heldSince: undefined,
})

/** The newest word of a topic; one that was taken back is none. */
export function standing({ words }: Memory, topic: string): Word | undefined {
  const word = words.findLast((one) => one.topic === topic)
  return word?.answer === 'taken-back' ? undefined : word
}

/** Answers that are against the work, as a technician knows them. */
const AGAINST: Readonly<Record<string, string>> = {
  'owner.proof': 'not-shown',
  'owner.managed': 'not-agreed',
  'owner.account': 'nobody',
  'condition.cell': 'damaged',
  'condition.wet': 'wet',
}
export const isAgainst = ({ topic, answer }: Pick<Word, 'topic' | 'answer'>): boolean =>
  AGAINST[topic] === answer || (answer === 'no' && /^(fate|consent)\./.test(topic))

/** What stands against the work now; an owner's no to what the plan does not need stops nothing. */
export function standsAgainst(memory: Memory): Word | undefined {
  const topics = [...new Set(memory.words.map(({ topic }) => topic))]
  return topics
    .flatMap((topic) => standing(memory, topic) ?? [])
    .find((word) => isAgainst(word) && isNeeded(memory, word.topic))
}
const isNeeded = ({ fates }: Memory, topic: string): boolean =>
  topic.startsWith('fate.')
    ? fates.includes(topic.slice('fate.'.length))
    : topic !== 'consent.preview'
