/**
 * A slip out as one file, and one in. What another shop's people signed was not signed here: of what was said there its
 * owner's wishes, the history and what came with it are taken over, all else stands as a note; readings count as an
 * earlier slip's. The file goes without personal texts unless they are asked for.
 */
import type { AnswerOf, Contract } from '@plain-slate/api'
import type { Reading, Result, SlipFile } from '@plain-slate/core'
import {
  SLIP_FILE,
  isoOf,
  msOf,
  ok,
  readSlipFile,
  readingsFrom,
  refuse,
  takes,
  topicOf,
} from '@plain-slate/core'
import { sayAny } from '@plain-slate/texts'
import { enter } from '../book/append.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import { openSlip } from '../slips/open.ts'
import { insertReadings } from '../tables/job.ts'
import { tell } from '../tables/news.ts'
import { readShop } from '../tables/shop.ts'
import { raiseVersion } from '../tables/slips.ts'
import type { JobAt } from './job-at.ts'
import type { Speaker } from './say.ts'
import { sayLines } from './say.ts'
import { onOpenSlip } from './open-slip.ts'

/** Groups of lines that are true wherever they were said. */
const TAKEN_OVER: readonly string[] = ['survive', 'history', 'accessory']

export async function slipFileOf(
  workshop: Workshop,
  { slip, all, readings }: JobAt,
  personal: boolean,
): Promise<SlipFile> {
  const shop = await readShop(workshop.db)
  const { number, device, model, intent, promise, due, customer, words } = slip
  const text = (one: string | null) => (personal ? one : null)
  return {
    format: SLIP_FILE,
    number,
    shop: shop?.name ?? '',
    device,
    model,
    intent,
    promise,
    due,
    customer: text(customer),
    words: text(words),
    lines: all.map(({ topic, answer, note, by, at }) => ({
      topic,
      answer,
      note: text(note),
      by: text(by),
      at,
    })),
    readings: readings.map((one) => readingOut(one, personal)),
  }
}

const readingOut = (
  { fact, value, source, mode, person, at }: Reading,
  personal: boolean,
): SlipFile['readings'][number] => ({
  fact,
  value,
  source,
  mode: mode ?? null,
  by: personal ? (person ?? null) : null,
  at: isoOf(at),
})

/** Opens a slip from a file; answers its number. */
export async function takeSlipFile(
  workshop: Workshop,
  text: string,
  who: Speaker,
): Promise<Result<AnswerOf<Contract['slipFileTake']>, Refusal>> {
  const read = readSlipFile(text)
  if (!read.ok) {
    const { why } = read.refusal
    const place =
      read.refusal.why === 'shape' ? `${read.refusal.path}: ${read.refusal.problem}` : ''
    const format = read.refusal.why === 'format' ? read.refusal.format : ''
    return refuse({ code: 'slip.file', facts: { why, place, format } })
  }
  const file = read.value
  const by = who?.id ?? null
  const { device, model, intent, promise, due, customer, words } = file
  const slip = await openSlip(
    workshop,
    {
      device,
      model: model ?? '',
      intent,
      promise,
      due: due ?? '',
      customer: customer ?? '',
      words: words ?? '',
    },
    by,
  )
  const { number } = slip
  await onOpenSlip(workshop, number, (trx) => putReadings(workshop, trx, { number, file, by }))
  const lines = linesFrom(file)
  if (lines.length > 0) await sayLines(workshop, number, lines, who)
  return ok({
    number,
    lines: lines.length,
    left: file.lines.length - lines.length,
    readings: file.readings.length,
  })
}

type Putting = { readonly number: string; readonly file: SlipFile; readonly by: string | null }

async function putReadings(
  workshop: Workshop,
  trx: Parameters<Parameters<typeof onOpenSlip>[2]>[0],
  { number, file, by }: Putting,
): Promise<undefined> {
  for (const { fact, value, source, mode, at } of readingsFrom(file)) {
    await insertReadings(trx, number, [{ fact, value, source, mode, by, at: new Date(msOf(at)) }])
    await enter(workshop, trx, {
      by,
      act: 'slip.reading',
      slip: number,
      facts: { fact, value, source },
    })
  }
  await tell(trx, 'slip', number, await raiseVersion(trx, number))
  return undefined
}

/** The newest answer of each topic that is true here too, with where it was said. */
function linesFrom(file: SlipFile): { topic: string; answer: string; note: string }[] {
  const newest = new Map<string, SlipFile['lines'][number]>()
  for (const line of [...file.lines].sort((a, b) => a.at.localeCompare(b.at)))
    newest.set(line.topic, line)
  return [...newest.values()].flatMap(({ topic, answer, note }) => {
    const known = topicOf(topic)
    if (known === undefined || !TAKEN_OVER.includes(known.group) || !takes(known, answer)) return []
    const from = sayAny('en-GB', 'slip.file.from', { shop: file.shop, number: file.number })
    return [{ topic, answer, note: [from, note ?? ''].filter((part) => part !== '').join(' ') }]
  })
}
