/**
 * What Intake asks on this slip: the house's topics, a thing each for those of its family with what becomes of it,
 * consents where a road needs them, the lighter remedies that its symptom allows.
 */
import type { TopicShown } from '@plain-slate/api'
import { ROW_TOPIC, candidates, intakeTopics, mustBeSaid, said, thingsOf } from '@plain-slate/core'
import type { JobAt } from './job-at.ts'
import { onceOf } from './kept.ts'
import { lighterAsked } from './lighter.ts'
import { asksRow, choicesOf, saysOfRows } from './wanted.ts'

export function topicsOf(job: JobAt): TopicShown[] {
  const { family } = job
  const things = family?.items ?? []
  const ids = things.map(({ id }) => id)
  const lighter = new Map(lighterAsked(job).map((one) => [`lighter.${one.name}`, one.say]))
  const needed = new Set([...mustBeSaid(ids, asksRow(job)), ...lighter.keys()])
  const asked = consentsAsked(job)
  return intakeTopics(ids)
    .filter(({ topic }) => topic !== ROW_TOPIC || needed.has(topic))
    .filter(({ topic, group }) => group !== 'lighter' || lighter.has(topic))
    .filter(({ topic, group }) => group !== 'consent' || needed.has(topic) || asked.has(topic))
    .map(({ topic, stage, group, answers }) => ({
      topic,
      stage,
      group,
      answers: [...(choicesOf(job, topic) ?? answers)],
      name: things.find(({ id }) => topic === `survive.${id}`)?.name ?? null,
      needed: needed.has(topic),
      fate: group === 'survive' ? fateOf(job, topic.slice('survive.'.length)) : null,
      say: topic === ROW_TOPIC ? saysOfRows(job) : [...(lighter.get(topic) ?? [])],
    }))
}

/** A thing's own line of the plan; before there is one it is said of what has no place, since no plan can keep it. */
function fateOf({ taken, family, things, lines }: JobAt, thing: string): TopicShown['fate'] {
  if (said(lines, `survive.${thing}`) === 'not-there') return null
  const planned = taken?.shown.fates.find(({ item }) => item === thing)
  if (planned !== undefined) return planned.fate
  const known = family !== undefined && thingsOf(things).includes(thing)
  return known && !things.includes(thing) ? 'unpromised' : null
}

/** Consents that some package here asks for, that the slip's own intent means, or that were answered already. */
const consentsAsked = onceOf((job: JobAt): ReadonlySet<string> => {
  const { found, slip, lines } = job
  const meant: Readonly<Record<string, string>> = {
    preview: 'consent.preview',
    service: 'consent.mark',
  }
  const judged = found === undefined ? [] : candidates(found.at)
  const asked = judged.flatMap(({ findings }) =>
    findings.flatMap(({ remedy }) => (remedy?.kind === 'ask' ? [remedy.topic] : [])),
  )
  const answered = [...lines.keys()].filter((topic) => topic.startsWith('consent.'))
  return new Set([meant[slip.intent] ?? '', ...asked, ...answered])
})
