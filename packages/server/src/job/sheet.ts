/**
 * The sheet that goes with the customer: what was done, how each of their things was found, what is worse,
 * what stays, what comes next, and the head of the book, without which a cut-off tail of it would be
 * invisible. It says what journals, tally, answers and the device show, never what was only planned. First
 * as plain blocks, then drawn as a PDF with the house's own type.
 */
import type { Paper } from '@plain-slate/core'
import { careOf, duesOf, isoOf } from '@plain-slate/core'
import { isCode, sayAny, speaker, worseWords } from '@plain-slate/texts'
import PDFDocument from 'pdfkit'
import type { Workshop } from '../base/workshop.ts'
import { readHead } from '../tables/book.ts'
import { readShop } from '../tables/shop.ts'
import { paperFor } from './after.ts'
import type { JobAt } from './job-at.ts'
import { bytesOf, font } from './pdf.ts'
import { nextPatch, proofOf } from './proof.ts'

export type Block = { readonly title: string; readonly lines: readonly string[] }
export type Sheet = {
  readonly title: string
  readonly under: string
  readonly blocks: readonly Block[]
  readonly foot: readonly string[]
}
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

/** The sheet of a job as it stands, drawn. */
export async function sheetOf(workshop: Workshop, job: JobAt): Promise<Buffer> {
  const [paper, head, shop, now] = await Promise.all([
    paperFor(workshop, job),
    readHead(workshop.db),
    readShop(workshop.db),
    workshop.clock.now(),
  ])
  const name = shop === undefined ? '' : `${shop.name}, ${shop.place}`
  return drawSheet(sheetBlocks(job, paper, head, isoOf(now).slice(0, 10)), name)
}

const PAGE = { size: 'A4', margin: 56 } as const
const PT = { title: 20, heading: 12, text: 11, foot: 9 } as const
/** Draws a sheet: A4, one column, the head of the book also in the file's own keywords. */
export function drawSheet(sheet: Sheet, shop: string): Promise<Buffer> {
  const info = { Title: sheet.title, Author: shop, Keywords: sheet.foot.at(-1) ?? '' }
  const pdf = new PDFDocument({ ...PAGE, info, lang: 'en-GB', displayTitle: true })
  const done = bytesOf(pdf)
  pdf.font(font('next', 400)).fontSize(PT.text).text(shop)
  pdf.moveDown(0.6).font(font('next', 700)).fontSize(PT.title).text(sheet.title)
  pdf.font(font('next', 400)).fontSize(PT.text).text(sheet.under)
  for (const { title, lines } of sheet.blocks) {
    pdf.moveDown(0.9).font(font('next', 700)).fontSize(PT.heading).text(title)
    pdf.font(font('next', 400)).fontSize(PT.text)
    for (const line of lines) pdf.text(line, { lineGap: 2 })
  }
  pdf.moveDown(1.6).fontSize(PT.foot)
  const [caution = '', ...book] = sheet.foot
  pdf.text(caution).moveDown(0.6).font(font('mono', 400))
  for (const line of book) pdf.text(line)
  pdf.end()
  return done
}
