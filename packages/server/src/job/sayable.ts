/**
 * Everything that may be said of a slip as a line, and with what: the house's topics, its family's own things, tries to
 * come into each mode. What has an act of its own (a rule that is overruled) is not among them.
 */
import type { AnswerOf, Contract } from '@plain-slate/api'
import { TOPICS, leastOf, topicOf, wayTopic } from '@plain-slate/core'
import type { Topic } from '@plain-slate/core'
import type { JobAt } from './job-at.ts'
import { newestOf } from './show.ts'
import { choicesOf } from './wanted.ts'

type Sayable = AnswerOf<Contract['jobSayable']>[number]

/** What is of the link permission, which each family calls by a name of its own. */
const PERMITTED = ['ready.permission'] as const

export function sayableOf(job: JobAt): Sayable[] {
  const { family } = job
  const things = family?.items ?? []
  const own = [
    ...things.map(({ id }) => `survive.${id}`),
    ...(family?.modes ?? []).map(({ id }) => wayTopic(id)),
  ].flatMap((topic) => topicOf(topic) ?? [])
  const names = new Map([
    ...things.map(({ id, name }) => [`survive.${id}`, name] as const),
    ...(family?.modes ?? []).map(({ id, name }) => [wayTopic(id), name] as const),
    ...PERMITTED.map((topic) => [topic, family?.permission.what ?? null] as const),
  ])
  const lines = new Map(newestOf(job).map((line) => [line.topic, line]))
  const all = new Map([...TOPICS, ...own].map((one) => [one.topic, one]))
  return [...all.values()].map((one) => ({
    topic: one.topic,
    stage: one.stage,
    group: one.group,
    answers: answersOf(job, one),
    day: one.day === true,
    reason: one.reason === true,
    least: one.least ?? leastOf('slip.line'),
    name: names.get(one.topic) ?? null,
    listedBy: one.topic === 'route.package' ? 'jobRoutes' : null,
    stands: lines.get(one.topic) ?? null,
  }))
}

function answersOf(job: JobAt, { topic, answers }: Topic): string[] {
  if (topic === 'screen.shows') return ['none', ...(job.family?.modes ?? []).map(({ id }) => id)]
  return [...(choicesOf(job, topic) ?? answers)]
}
