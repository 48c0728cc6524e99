/**
 * The sheet that goes with the customer: what was done, how each of their things was found, what is worse,
 * what stays, what comes next, and the head of the book, without which a cut-off tail of it would be
 * invisible. It says what journals, tally, answers and the device show, never what was only planned. First
 * as plain blocks, then drawn as a PDF with the house's own type.
 */
import type { Paper } from '@plain-slate/core'
import { careOf, duesOf, isoOf } from '@plain-slate/core'
import { isCode, sayAny, speaker, worseWords } from '@plain-slate/texts'
import type { Workshop } from '../base/workshop.ts'
import { readHead } from '../tables/book.ts'
import { readShop } from '../tables/shop.ts'
import { paperFor } from './after.ts'
import type { Block, Sheet } from './draw.ts'
import { drawSheet } from './draw.ts'
import type { JobAt } from './job-at.ts'
import type { Telling } from './papers.ts'
import { nextPatch, proofOf } from './proof.ts'

type Head = { readonly seq: number; readonly hash: string }

const say = speaker('en-GB')
/** What the sheet says. */
export function sheetBlocks(job: JobAt, paper: Paper, head: Head, date: string): Sheet {
  const { slip } = job
  const { number, device } = slip
  const blocks = [
    doneBlock(job, paper),
    thingsBlock(job, paper),
    worseBlock(paper),
    testedBlock(job),
    marksBlock(paper),
    backBlock(job),
    nextBlock(job, paper),
  ]
  return {
    title: say('sheet.title', { number, device }),
    under: say('sheet.for', { customer: slip.customer ?? say('slip.head.unknown'), date }),
    blocks: blocks.filter(({ lines }) => lines.length > 0),
    foot: [say('sheet.caution'), say('sheet.book', { seq: head.seq, hash: head.hash })],
  }
}

function doneBlock(job: JobAt, { done }: Paper): Block {
  const title = say('sheet.done')
  switch (done.kind) {
    case 'nothing':
      return { title, lines: [say('sheet.not-done')] }
    case 'cured':
      return { title, lines: [say('sheet.cured', { by: say(`lighter.${done.by}`) })] }
    case 'ended':
      return { title, lines: [wasAndIs(job)] }
    case 'broken-off': {
      const { step, steps, whole, part } = done
      const named = (code: 'sheet.broken.whole' | 'sheet.broken.part', names: readonly string[]) =>
        names.length === 0 ? [] : [say(code, { names: names.join(', ') })]
      return {
        title,
        lines: [
          say('sheet.broken', { step, steps }),
          ...named('sheet.broken.whole', whole),
          ...named('sheet.broken.part', part),
        ],
      }
    }
  }
}

/** What it was and what it says of itself; where it was not asked, only what was written is said. */
function wasAndIs(job: JobAt): string {
  const { facts } = proofOf(job)
  const build = facts.find(({ fact }) => fact === 'build')
  const date = facts.find(({ fact }) => fact === 'patchDate')
  const was = String(build?.was ?? '')
  if (build?.now === null || build === undefined)
    return say('sheet.was.unasked', { build: was, written: String(build?.promised ?? '') })
  return say('sheet.was', { build: was, now: String(build.now), date: String(date?.now ?? '') })
}

function thingsBlock({ tally }: JobAt, { things, done }: Paper): Block {
  const { before, after } = tally
  const counted =
    before === null || after === null || done.kind !== 'ended'
      ? []
      : [say('sheet.tally', { before: before.items, after: after.items })]
  const lines = things.map(({ name, item, fate, found }) =>
    say('sheet.thing', {
      name: name === '' ? item : name,
      fate:
        found === 'as-promised' || fate === 'unpromised'
          ? say(`fate.${fate}`)
          : say(`sheet.found.${found}`, { fate: say(`fate.${fate}`) }),
    }),
  )
  return { title: say('sheet.things'), lines: [...lines, ...counted] }
}

/** What is worse than before, or not as promised: each thing by its name. */
function worseBlock({ worse }: Paper): Block {
  return { title: say('sheet.worse'), lines: worse.map((one) => worseWords(say, one)) }
}

/** Lines of a group, in words: "Screen: works". */
function linesOf({ lines }: JobAt, prefix: string): readonly string[] {
  return [...lines.values()]
    .filter(({ topic, answer }) => topic.startsWith(prefix) && isCode(`answer.${answer}`))
    .map(({ topic, answer }) =>
      say('sheet.thing', {
        name: isCode(`topic.${topic}`)
          ? sayAny('en-GB', `topic.${topic}` as 'topic.back.sim', {})
          : topic,
        fate: sayAny('en-GB', `answer.${answer}` as 'answer.done', {}),
      }),
    )
}

const testedBlock = (job: JobAt): Block => ({
  title: say('sheet.tested'),
  lines: linesOf(job, 'after.'),
})
const backBlock = (job: JobAt): Block => ({
  title: say('sheet.back'),
  lines: linesOf(job, 'back.'),
})

/** What stays; of a job that never came to a start nobody can say that nothing does. */
function marksBlock({ marks, bears, done }: Paper): Block {
  const title = say('sheet.marks')
  if (done.kind === 'nothing') return { title, lines: [] }
  const whole = done.kind === 'ended' || done.kind === 'cured'
  const none = whole ? 'back.marks.none' : 'back.marks.unknown'
  const lines = [
    ...marks.map((mark) => say(`back.marks.${mark}`)),
    ...bears.map((mark) => say('back.marks.bears', { mark })),
  ]
  return { title, lines: lines.length === 0 ? [say(none)] : lines }
}

function nextBlock(job: JobAt, { done }: Paper): Block {
  const title = say('sheet.next')
  const standing = duesOf(job.lines)
  const patch = job.run?.plan.packages.at(-1)?.manifest.patchDate
  const patches =
    done.kind !== 'ended' || patch === undefined || standing.some(({ what }) => what === 'patch')
      ? []
      : [say('back.next.patch', { date: patch, due: nextPatch(patch) })]
  const dues = standing.map(({ what, on }) => say(`sheet.due.${what}`, { on }))
  const copy = careOf(job.lines) === 'none' ? [] : [say('sheet.copy')]
  return { title, lines: [...patches, ...dues, ...copy] }
}

/** The sheet of a job as it stands, drawn; without personal text it names no customer. */
export async function sheetOf(
  workshop: Workshop,
  job: JobAt,
  texts: Telling = 'with',
): Promise<Buffer> {
  const [paper, head, shop, now] = await Promise.all([
    paperFor(workshop, job),
    readHead(workshop.db),
    readShop(workshop.db),
    workshop.clock.now(),
  ])
  const name = shop === undefined ? '' : `${shop.name}, ${shop.place}`
  const date = isoOf(now).slice(0, 10)
  return drawSheet(unnamed(sheetBlocks(job, paper, head, date), texts, date), name)
}

/** Handed on to others it says whose device it was to nobody. */
export const unnamed = (sheet: Sheet, texts: Telling, date: string): Sheet =>
  texts === 'with' ? sheet : { ...sheet, under: say('paper.printed', { date }) }

/** Another paper of the house, with its own words and name; undefined: there is none to draw. */
export async function paperOfHouse(
  workshop: Workshop,
  draw: (date: string) => Sheet | undefined,
): Promise<Buffer | undefined> {
  const [shop, now] = await Promise.all([readShop(workshop.db), workshop.clock.now()])
  const sheet = draw(isoOf(now).slice(0, 10))
  const name = shop === undefined ? '' : `${shop.name}, ${shop.place}`
  return sheet === undefined ? undefined : drawSheet(sheet, name)
}
