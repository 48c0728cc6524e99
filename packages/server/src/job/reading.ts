/** Readings that somebody puts down by hand, or takes back: both stay on record. */
import type { BodyOf, Contract } from '@plain-slate/api'
import type { Fact, FactValue, Family, Result } from '@plain-slate/core'
import { readTyped, refuse, standingOne } from '@plain-slate/core'
import { sayAny } from '@plain-slate/texts'
import { enter } from '../book/append.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import { dayOf } from '../base/workshop.ts'
import { insertReadings } from '../tables/job.ts'
import { tell } from '../tables/news.ts'
import { buildsKnown } from '../tables/packages.ts'
import { raiseVersion } from '../tables/slips.ts'
import type { JobAt } from './job-at.ts'
import { loadJob } from './load.ts'
import { onOpenSlip } from './open-slip.ts'

/** What somebody typed for a fact, or what is said to them. */
export async function readAs(
  workshop: Workshop,
  families: readonly Family[],
  fact: Fact,
  typed: string,
): Promise<Result<FactValue, Refusal>> {
  const value = readTyped(families, fact, typed, {
    ...(fact === 'build' ? { known: await buildsKnown(workshop.db) } : {}),
    today: await dayOf(workshop),
  })
  if (value.ok) return value
  const { why, perhaps, breaks } = value.refusal
  const meant =
    perhaps.length === 0
      ? ''
      : sayAny('en-GB', 'slip.reading.perhaps', { value: perhaps.join(', ') })
  const place = breaks === undefined ? '' : sayAny('en-GB', 'slip.reading.breaks', { ...breaks })
  return refuse({ code: 'slip.reading', facts: { value: typed, fact, why, place, perhaps: meant } })
}

type Put = Pick<BodyOf<Contract['jobReading']>, 'fact' | 'source'> & {
  readonly value: FactValue
  readonly takesBack: boolean
  readonly by: string | null
}

async function putReading(
  workshop: Workshop,
  number: string,
  { by, takesBack, ...facts }: Put,
): Promise<Result<JobAt, Refusal>> {
  return onOpenSlip(workshop, number, async (trx) => {
    const at = new Date(await workshop.clock.now())
    await insertReadings(trx, number, [{ ...facts, takesBack, mode: null, by, at }])
    const act = takesBack ? 'slip.reading-back' : 'slip.reading'
    await enter(workshop, trx, { by, act, slip: number, facts })
    await tell(trx, 'slip', number, await raiseVersion(trx, number))
    return undefined
  })
}

/** Puts a reading down that somebody made. */
export async function typeReading(
  workshop: Workshop,
  number: string,
  { fact, source, value: typed }: BodyOf<Contract['jobReading']>,
  by: string | null,
): Promise<Result<JobAt, Refusal>> {
  const value = await readAs(workshop, workshop.families, fact, typed)
  if (!value.ok) return value
  return putReading(workshop, number, { fact, source, value: value.value, by, takesBack: false })
}

/** Takes a reading back that somebody put down; what the device itself said is read again instead. */
export async function takeReadingBack(
  workshop: Workshop,
  number: string,
  meant: BodyOf<Contract['jobReadingBack']>,
  by: string | null,
): Promise<Result<JobAt, Refusal>> {
  const job = await loadJob(workshop, number)
  if (!job.ok) return job
  const { readings, ofLines } = job.value
  const found = standingOne(
    readings.filter((one) => !ofLines.includes(one)),
    meant,
  )
  if (found === undefined) return refuse({ code: 'slip.no-reading', facts: { ...meant } })
  const { fact, source } = meant
  return putReading(workshop, number, { fact, source, value: found.value, by, takesBack: true })
}
