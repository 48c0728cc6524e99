/**
 * Aftercare: what is due on slips after their work. Copies of customers' data that are kept until their owners say that
 * all is well, and days that people put down; as a list, and as a calendar that leaves the house.
 */
import type { CareShown } from '@plain-slate/api'
import type { Lines } from '@plain-slate/core'
import { careOf, duesOf, isoOf, ms, msOf, standingLines } from '@plain-slate/core'
import { speaker } from '@plain-slate/texts'
import ical from 'ical-generator'
import type { Workshop } from '../base/workshop.ts'
import { CARE_DAYS } from '../shop/rules.ts'
import type { CareLines } from '../tables/job.ts'
import { listCareLines } from '../tables/job.ts'
import { readShop } from '../tables/shop.ts'

const DAY_MS = 86_400_000
const say = speaker('en-GB')

/** What is due, the first of it first. */
export async function listCare(workshop: Workshop): Promise<CareShown[]> {
  const slips = await listCareLines(workshop.db)
  return slips.flatMap(caresOf).sort((a, b) => a.due.localeCompare(b.due))
}

function caresOf({ lines, closed, ...slip }: CareLines): CareShown[] {
  const standing: Lines = standingLines(lines.map((line) => ({ ...line, at: msOf(line.at) })))
  const care = closed ? careOf(standing) : 'none'
  const since = (standing.get('back.told') ?? standing.get('ready.backup'))?.at ?? 0
  const copy: CareShown[] =
    care === 'none' ? [] : [{ ...slip, care, due: isoOf(ms(since + CARE_DAYS * DAY_MS)) }]
  const dues = duesOf(standing).map(({ what, on }) => ({ ...slip, care: what, due: dayAt(on) }))
  return [...copy, ...dues]
}

/** A day as a moment: its beginning. */
const dayAt = (day: string): string => isoOf(ms(Date.parse(day)))

/** The same as iCalendar (RFC 5545): a whole day each, without a customer's name. */
export async function careCalendar(workshop: Workshop): Promise<string> {
  const shop = await readShop(workshop.db)
  const now = new Date(await workshop.clock.now())
  const calendar = ical({
    name: say('calendar.name', { shop: shop?.name ?? '' }),
    prodId: { company: 'Plain Slate', product: 'aftercare' },
  })
  for (const { number, device, care, due } of await listCare(workshop))
    calendar.createEvent({
      id: `${number}-${care}@plain-slate`,
      stamp: now,
      start: due.slice(0, 10),
      allDay: true,
      summary: say('calendar.event', { number, device, what: say(`counter.care.${care}`) }),
    })
  return calendar.toString()
}
