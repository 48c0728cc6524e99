/**
 * Who listens in this process, and what they may hear. Reads news (from PostgreSQL), gives them to
 * every subscriber whose role reaches the topic. Leaves out HTTP, which is `stream`.
 */
import type { News, Topic } from '@plain-slate/api'
import type { Need, Role } from '@plain-slate/core'
import { reaches } from '@plain-slate/core'

/** News; "something may have been missed: fetch all"; "this server is ending: come back". */
export type Word =
  | { readonly kind: 'news'; readonly news: News }
  | { readonly kind: 'reset' }
  | { readonly kind: 'bye' }

export type Subscriber = {
  readonly personId: string
  /** A person's role, or the agent's place above all of them. */
  readonly role: Role | 'agent'
  readonly hear: (word: Word) => void
}

const TOPIC_NEEDS: Readonly<Record<Topic, Need>> = {
  slip: 'trainee',
  book: 'trainee',
  people: 'trainee',
  bench: 'trainee',
  run: 'trainee',
  shelf: 'trainee',
  work: 'agent',
  shop: 'trainee',
  session: 'trainee',
}

/** Streams one person may hold in one process: a few benches, each with one browser. */
export const STREAMS_A_PERSON = 8

export type Hub = {
  /** Undefined when this person holds as many streams as they may. */
  readonly subscribe: (subscriber: Subscriber) => (() => void) | undefined
  readonly tell: (word: Word) => void
  readonly size: () => number
}

export function makeHub(): Hub {
  const subscribers = new Set<Subscriber>()
  const streamsOf = (id: string) =>
    [...subscribers].filter((subscriber) => subscriber.personId === id).length
  return {
    subscribe(subscriber) {
      if (streamsOf(subscriber.personId) >= STREAMS_A_PERSON) return undefined
      subscribers.add(subscriber)
      return () => void subscribers.delete(subscriber)
    },
    tell(word) {
      for (const subscriber of subscribers) if (mayHear(subscriber, word)) subscriber.hear(word)
    },
    size: () => subscribers.size,
  }
}

function mayHear(subscriber: Subscriber, word: Word): boolean {
  if (word.kind !== 'news') return true
  const { topic, id } = word.news
  if (topic === 'session' && id !== subscriber.personId) return false
  return reaches(subscriber.role, TOPIC_NEEDS[topic])
}
