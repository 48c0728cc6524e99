/**
 * Papers that stay in the house or go on to another: the slip as it stands, and the bench card, which leads through the
 * plan with both hands free. What goes on to others bears no name and nothing that somebody wrote. As plain blocks.
 */
import { FACTS, settled } from '@plain-slate/core'
import { isCode, rangeWords, sayAny, speaker, stepWords } from '@plain-slate/texts'
import type { Block, Sheet } from './draw.ts'
import type { JobAt } from './job-at.ts'

const say = speaker('en-GB')
const word = (code: string): string | undefined =>
  isCode(code) ? sayAny('en-GB', code as 'answer.done', {}) : undefined

/** Groups of what is said at the counter and after, in their order, and the headings they stand under. */
const GROUPS = [
  'survive',
  'owner',
  'condition',
  'history',
  'want',
  'use',
  'consent',
  'accessory',
  'function',
  'after',
  'undo',
  'back',
] as const

/** How much of it is told: to the house all of it, to others nothing that names somebody. */
export type Telling = 'with' | 'without'

/** The slip as it stands. */
export function slipPaper(job: JobAt, texts: Telling, date: string): Sheet {
  const { slip, picked, taken } = job
  const customer = texts === 'with' ? [slip.customer ?? say('slip.head.unknown')] : []
  const head: Block = {
    title: say('paper.slip.head'),
    lines: [
      say('paper.slip.wish', { intent: say(`intent.${slip.intent}`) }),
      say('paper.slip.stage', { stage: say(`stage.${slip.stage}`) }),
      ...(picked === undefined
        ? []
        : [say('paper.slip.route', { title: picked.aim.manifest.title })]),
      ...(taken === undefined ? [] : [say('paper.slip.plan', { n: taken.shown.steps.length })]),
    ],
  }
  const blocks = [head, factsBlock(job), ...GROUPS.map((group) => saidBlock(job, group, texts))]
  return {
    title: say('sheet.title', { number: slip.number, device: slip.device }),
    under: [...customer, say('paper.printed', { date })].join(', '),
    blocks: blocks.filter(({ lines }) => lines.length > 0),
    foot: [say('sheet.caution')],
    code: slip.number,
  }
}

/** What it is, as far as that is settled; its serial number by its end. */
function factsBlock({ identity }: JobAt): Block {
  const lines = FACTS.flatMap((fact) => {
    const value = settled(identity, fact)
    if (value === undefined) return []
    const told =
      fact === 'serial' || fact === 'deviceId' ? `…${endOf(String(value))}` : String(value)
    return [say('sheet.thing', { name: say(`fact.${fact}`), fate: told })]
  })
  return { title: say('paper.slip.facts'), lines }
}

/** What was said under one heading; what somebody wrote beside it stays in the house. */
function saidBlock(
  { lines, all, family }: JobAt,
  group: (typeof GROUPS)[number],
  texts: Telling,
): Block {
  const notes = new Map(all.map((line) => [line.topic, line.note]))
  const own = [...lines.values()].filter(({ topic }) => topic.startsWith(`${group}.`))
  return {
    title: word(`group.${group}`) ?? group,
    lines: own.map(({ topic, answer }) => {
      const item = family?.items.find(({ id }) => topic === `survive.${id}`)
      const name = item?.name ?? word(`topic.${topic}`) ?? topic
      const told = say('sheet.thing', { name, fate: word(`answer.${answer}`) ?? answer })
      const note = notes.get(topic) ?? ''
      return texts === 'with' && note !== '' ? `${told} (${note})` : told
    }),
  }
}

/** The bench card: every step of the plan that was taken, each by its hands. Undefined: none was taken. */
export function benchCard(job: JobAt, date: string): Sheet | undefined {
  const { slip, taken, serial, sight } = job
  if (taken === undefined) return undefined
  const { shown } = taken
  const port = sight === undefined ? [] : [say('paper.card.port', { port: sight.port })]
  const end = serial === undefined ? [] : [say('paper.card.serial', { end: endOf(serial) })]
  const time = rangeWords(say, shown.time)
  return {
    title: say('paper.card.title', { number: slip.number, device: slip.device }),
    under: [shown.title, ...end, ...port, say('paper.printed', { date })].join(', '),
    blocks: [
      {
        title: say('paper.card.steps', { n: shown.steps.length, time }),
        lines: shown.steps.map(
          (step, index) =>
            `${index + 1}. ${stepWords(say, step)} (${rangeWords(say, step.seconds)})`,
        ),
      },
    ],
    foot: [say('paper.card.caution')],
    code: slip.number,
  }
}

const SHOWN = 4
const endOf = (text: string): string => text.slice(-SHOWN)
