/** Reading a slip's device over the link: its facts become readings, its things are counted. */
import type { DeviceFacts, Result } from '@plain-slate/core'
import { refuse, isOver } from '@plain-slate/core'
import { lookAtPort } from '../bench/read-device.ts'
import type { FoundDevice } from '../bench/read-device.ts'
import { enter } from '../book/append.ts'
import type { House } from '../house.ts'
import type { Refusal } from '../refusal.ts'
import { readingsOf } from '../runs/case.ts'
import type { Transaction } from '../tables/database.ts'
import { insertLines, insertReadings, serialsOfOthers } from '../tables/job.ts'
import { tell } from '../tables/news.ts'
import { raiseVersion } from '../tables/slips.ts'
import type { JobAt } from './load.ts'
import { loadJob } from './load.ts'
import { onOpenSlip } from './say.ts'

type Asked = { readonly port: string; readonly deep: boolean; readonly by: string | null }

/** Reads the device at a port for a slip. Another device than the one read before is refused. */
export async function readForSlip(
  house: House,
  number: string,
  asked: Asked,
): Promise<Result<JobAt, Refusal>> {
  const before = await loadJob(house, number)
  if (!before.ok) return before
  const { state } = before.value.slip
  if (isOver(state)) return refuse({ code: 'slip.ended', facts: { number, state } })
  const sight = before.value.sights.find(({ port }) => port === asked.port)
  const other = await otherDevice(house, before.value, sight?.facts ?? undefined)
  if (other !== undefined) return refuse(other)
  const found = await lookAtPort(house, asked.port, asked.deep)
  if (!found.ok) return found
  const still = await otherDevice(house, before.value, found.value.facts)
  if (still !== undefined) return refuse(still)
  return onOpenSlip(house, number, async (trx) => {
    const when = before.value.run?.state === 'ended' ? 'after' : 'before'
    await keepLook(house, trx, number, { found: found.value, when, by: asked.by })
    return undefined
  })
}

/** Two like devices side by side are the real danger: same device as before, or stop. */
async function otherDevice(
  house: House,
  { serial, slip }: JobAt,
  facts: DeviceFacts | undefined,
): Promise<Refusal | undefined> {
  if (facts === undefined) return undefined
  const taken = (await serialsOfOthers(house.db, slip.number)).has(facts.serial)
  if (!taken && (serial === undefined || serial === facts.serial)) return undefined
  const number = slip.number
  return {
    code: 'slip.other-device',
    facts: { number, serial: facts.serial, known: serial ?? '' },
  }
}

/** Keeps what a look found, as readings over the link, with the tally where it could be taken. */
export async function keepLook(
  house: House,
  trx: Transaction,
  number: string,
  look: {
    readonly found: Pick<FoundDevice, 'facts' | 'digests' | 'table' | 'tally'>
    readonly when: 'before' | 'after'
    readonly by: string | null
  },
): Promise<void> {
  const { found, when, by } = look
  const at = new Date(await house.clock.now())
  const readings = readingsOf(found.facts).map(({ fact, value, source, mode }) => ({
    fact,
    value,
    source,
    mode: mode ?? null,
    by,
    at,
  }))
  await insertReadings(trx, number, readings)
  if (found.tally !== null) {
    const { items, bytes, opens } = found.tally
    const answer = `${items} ${bytes} ${opens ? 'opens' : 'closed'}`
    await insertLines(trx, number, [{ topic: `tally.${when}`, answer, noteText: null, by, at }])
  }
  await enter(house, trx, {
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
