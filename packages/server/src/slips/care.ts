/** Aftercare: copies of customers' data that are kept until their owners say that all is well. */
import type { CareShown } from '@plain-slate/api'
import { careOf, isoOf, ms, msOf, standingLines } from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import { CARE_DAYS } from '../shop/rules.ts'
import { listCareLines } from '../tables/job.ts'

const DAY_MS = 86_400_000

/** Closed slips whose copy is still here, the first due first. */
export async function listCare(workshop: Workshop): Promise<CareShown[]> {
  const slips = await listCareLines(workshop.db)
  return slips
    .flatMap(({ number, device, customer, lines }) => {
      const standing = standingLines(lines.map((line) => ({ ...line, at: msOf(line.at) })))
      const care = careOf(standing)
      if (care === 'none') return []
      const since = (standing.get('back.told') ?? standing.get('ready.backup'))?.at ?? 0
      return [{ number, device, customer, care, due: isoOf(ms(since + CARE_DAYS * DAY_MS)) }]
    })
    .sort((a, b) => a.due.localeCompare(b.due))
}
