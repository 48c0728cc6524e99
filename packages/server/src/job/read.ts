/** Reading a slip's device over the link: its facts become readings, its things are counted. */
import type { LookFound } from '@plain-slate/api'
import type { DeviceFacts, Result } from '@plain-slate/core'
import { isOver, readingsOf, refuse } from '@plain-slate/core'
import type { FoundDevice } from '../devices/looks.ts'
import { sayAny } from '@plain-slate/texts'
import { askLook, endWith } from '../devices/looks.ts'
import { enter } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Transaction } from '../tables/database.ts'
import { insertReadings, insertTally } from '../tables/job.ts'
import { tell } from '../tables/news.ts'
import { lockSlip, raiseVersion } from '../tables/slips.ts'
import type { JobAt } from './job-at.ts'
import { leaveShown } from './leave.ts'
import { loadJob, loadJobIn } from './load.ts'

type Asked = { readonly port: string; readonly deep: boolean; readonly by: string | null }

/** Asks for a look at a port for a slip. Another device than the one read before is refused at sight. */
export async function readForSlip(
  workshop: Workshop,
  number: string,
  asked: Asked,
): Promise<Result<JobAt, Refusal>> {
  const before = await loadJob(workshop, number)
  if (!before.ok) return before
  const { state } = before.value.slip
  if (isOver(state)) return refuse({ code: 'slip.ended', facts: { number, state } })
  const sight = before.value.sights.find(({ port }) => port === asked.port)
  const other = otherDevice(before.value, sight?.facts ?? undefined)
  if (other !== undefined) return refuse(other)
  const refused = asked.deep ? leavesRefused(workshop, before.value) : undefined
  if (refused !== undefined) return refuse(refused)
  const look = await askLook(workshop, { ...asked, slip: number })
  return look.ok ? loadJob(workshop, number) : look
}

/** Into another mode only when nothing is left that can be done in this one alone; the look itself counts first. */
function leavesRefused(workshop: Workshop, job: JobAt): Refusal | undefined {
  const first = leaveShown(workshop, job)
  if (first === null || first.open === 0) return undefined
  const open = first.items.filter(({ item, holds }) => !holds && item !== 'tally')
  if (open.length === 0) return undefined
  const what = open.map(({ item }) => sayAny('en-GB', `leave.${item}`, {})).join(', ')
  return { code: 'slip.leaves', facts: { number: job.slip.number, mode: first.mode, what } }
}

/** A look has ended: what it found for a slip becomes readings, unless the device is another, or it is over. */
export const lookEnded = (workshop: Workshop, id: string, found: LookFound): Promise<void> =>
  endWith(workshop, id, found, ({ slip: number, by }) => async (trx, device) => {
    if (number === null) return undefined
    const slip = await lockSlip(trx, number)
    const job = slip === undefined ? undefined : await loadJobIn(workshop, number, trx)
    if (slip === undefined || job?.ok !== true) return { code: 'slip.unknown', facts: { number } }
    if (isOver(slip.state)) return { code: 'slip.ended', facts: { number, state: slip.state } }
    const other = otherDevice(job.value, device.facts)
    if (other !== undefined) return other
    const when = job.value.run?.state === 'ended' ? 'after' : 'before'
    await keepLook(workshop, trx, number, { found: device, when, by })
    return undefined
  })

/** Two like devices side by side are the real danger: same device as before, or stop. */
function otherDevice(
  { serial, slip, others }: JobAt,
  facts: DeviceFacts | undefined,
): Refusal | undefined {
  if (facts === undefined) return undefined
  const claims = others.get(facts.serial)
  if (claims !== undefined)
    return { code: 'slip.claimed', facts: { number: claims, serial: facts.serial } }
  if (serial === undefined || serial === facts.serial) return undefined
  const number = slip.number
  return {
    code: 'slip.other-device',
    facts: { number, serial: facts.serial, known: serial },
  }
}

/** Keeps what a look found, as readings over the link, with the tally where it could be taken. */
export async function keepLook(
  workshop: Workshop,
  trx: Transaction,
  number: string,
  look: {
    readonly found: Pick<FoundDevice, 'facts' | 'met' | 'digests' | 'table' | 'tally'>
    readonly when: 'before' | 'after'
    readonly by: string | null
  },
): Promise<void> {
  const { found, when, by } = look
  const at = new Date(await workshop.clock.now())
  /* Of a fact that several modes show the last one counts: it was read last. */
  const said = [...found.met, found.facts].flatMap((facts) => readingsOf(facts))
  const newest = new Map(said.map((reading) => [reading.fact, reading]))
  const readings = [...newest.values()].map(({ fact, value, source, mode }) => ({
    fact,
    value,
    source,
    mode: mode ?? null,
    by,
    at,
  }))
  await insertReadings(trx, number, readings)
  if (found.tally !== null) await insertTally(trx, number, { ...found.tally, when, by, at })
  await enter(workshop, trx, {
    by,
    act: 'slip.read',
    slip: number,
    facts: {
      serial: found.facts.serial,
      facts: readings.length,
      digests: found.digests.length,
      table: found.table !== null,
      items: found.tally?.items ?? '',
    },
  })
  await tell(trx, 'slip', number, await raiseVersion(trx, number))
}
