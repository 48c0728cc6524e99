/**
 * The sheet that goes with the customer: what was done, what became of their things, what stays, what
 * comes next, and the head of the book, without which a cut-off tail of it would be invisible. First as
 * plain blocks, then drawn as a PDF with the house's own type.
 */
import { createRequire } from 'node:module'
import { isoOf } from '@plain-slate/core'
import { isCode, sayAny, speaker } from '@plain-slate/texts'
import PDFDocument from 'pdfkit'
import type { House } from '../house.ts'
import { readHead } from '../tables/book.ts'
import { readShop } from '../tables/shop.ts'
import type { JobAt } from './load.ts'
import { nextPatch, proofOf } from './proof.ts'
import { tallyOf } from './show.ts'

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
export function sheetBlocks(job: JobAt, head: Head, date: string): Sheet {
  const { slip } = job
  const { number, device } = slip
  const blocks = [
    doneBlock(job),
    thingsBlock(job),
    testedBlock(job),
    marksBlock(job),
    backBlock(job),
  ]
  return {
    title: say('sheet.title', { number, device }),
    under: say('sheet.for', { customer: slip.customer ?? say('slip.head.unknown'), date }),
    blocks: [...blocks, nextBlock(job)].filter(({ lines }) => lines.length > 0),
    foot: [say('sheet.caution'), say('sheet.book', { seq: head.seq, hash: head.hash })],
  }
}

function doneBlock(job: JobAt): Block {
  const title = say('sheet.done')
  const facts = proofOf(job).facts
  const build = facts.find(({ fact }) => fact === 'build')
  const date = facts.find(({ fact }) => fact === 'patchDate')
  if (job.run?.state !== 'ended' || build === undefined)
    return { title, lines: [say('sheet.not-done')] }
  return {
    title,
    lines: [
      say('sheet.was', {
        build: build.was ?? '',
        now: build.now ?? build.promised ?? '',
        date: date?.now ?? date?.promised ?? '',
      }),
    ],
  }
}

function thingsBlock({ taken, run, all }: JobAt): Block {
  const fates = run?.state === 'ended' ? (taken?.shown.fates ?? []) : []
  const [before, after] = [tallyOf(all, 'before'), tallyOf(all, 'after')]
  const counted =
    before === null || after === null
      ? []
      : [say('sheet.tally', { before: before.items, after: after.items })]
  const lines = fates.map(({ name, fate }) =>
    say('sheet.thing', { name, fate: say(`fate.${fate as 'kept'}`) }),
  )
  return { title: say('sheet.things'), lines: [...lines, ...counted] }
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

function marksBlock(job: JobAt): Block {
  const title = say('sheet.marks')
  if (job.run?.state !== 'ended') return { title, lines: [] }
  return { title, lines: [say(proofOf(job).floorRose ? 'back.marks.floor' : 'back.marks.none')] }
}

function nextBlock(job: JobAt): Block {
  const title = say('sheet.next')
  const patch = job.run?.plan.packages.at(-1)?.manifest.patchDate
  if (job.run?.state !== 'ended' || patch === undefined) return { title, lines: [] }
  return { title, lines: [say('back.next.patch', { date: patch, due: nextPatch(patch) })] }
}

/** The sheet of a job as it stands, drawn. */
export async function sheetOf(house: House, job: JobAt): Promise<Buffer> {
  const [head, shop, now] = await Promise.all([
    readHead(house.db),
    readShop(house.db),
    house.clock.now(),
  ])
  const name = shop === undefined ? '' : `${shop.name}, ${shop.place}`
  return drawSheet(sheetBlocks(job, head, isoOf(now).slice(0, 10)), name)
}

const PAGE = { size: 'A4', margin: 56 } as const
const PT = { title: 20, heading: 12, text: 11, foot: 9 } as const
const files = createRequire(import.meta.url)
const font = (family: 'next' | 'mono', weight: 400 | 700) =>
  files.resolve(
    `@fontsource/atkinson-hyperlegible-${family}/files/atkinson-hyperlegible-${family}-latin-${weight}-normal.woff`,
  )

/** Draws a sheet: A4, one column, the head of the book also in the file's own keywords. */
export function drawSheet(sheet: Sheet, shop: string): Promise<Buffer> {
  const info = { Title: sheet.title, Author: shop, Keywords: sheet.foot.at(-1) ?? '' }
  const pdf = new PDFDocument({ ...PAGE, info, lang: 'en-GB', displayTitle: true })
  const parts: Buffer[] = []
  pdf.on('data', (part: Buffer) => parts.push(part))
  const done = new Promise<Buffer>((resolve) => pdf.on('end', () => resolve(Buffer.concat(parts))))
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
