/**
 * Laying out the demo: shop, people, bench and slips, with a book that tells how they came to be. One
 * transaction: the demo is there whole or not at all.
 */
import type { Ms, SlipState } from '@plain-slate/core'
import { isoOf, ms, msOf } from '@plain-slate/core'
import type { Database, Transaction } from '@plain-slate/server'
import {
  enter,
  foundShop,
  hashPin,
  insertBench,
  insertPerson,
  insertSlip,
  layText,
} from '@plain-slate/server'
import type { DemoJob } from './history/jobs.ts'
import type { Event } from './history/lay-job.ts'
import { DEMO_PEOPLE, idOf } from './people.ts'
import { DEMO_SLIPS } from './slips.ts'
import type { DemoSlip } from './slips.ts'

/** The demo's own now, whatever the real date; its clock runs on from here. */
export const DEMO_NOW = msOf('2026-10-15T14:22:00.000Z')
const FIRST_FREE_SLIP = 437
const DAY_MS = 86_400_000

/** "-1 09:05" on the demo's calendar, in ms. */
export function momentOf(text: string): Ms {
  const [day = '0', time = '00:00'] = text.split(' ')
  const [hours = 0, minutes = 0] = time.split(':').map(Number)
  const midnight = Math.floor(DEMO_NOW / DAY_MS) * DAY_MS
  return ms(midnight + Number(day) * DAY_MS + (hours * 60 + minutes) * 60_000)
}

const PORTS = ['P1', 'P2', 'P3', 'P4', 'P5', 'P6']
const CABLES: readonly (readonly [name: string, port: string | null, note: string])[] = [
  ['A', 'P1', 'good'],
  ['B', 'P4', 'worn and slow'],
  ['C', 'P2', 'good'],
  ['D', 'P3', 'good'],
  ['E', 'P6', 'drops now and then'],
  ['F', 'P5', 'good'],
]

type At = { readonly clock: { readonly now: () => Promise<Ms> } }

/** The demo's past. It builds whole packages as it is loaded, for seconds: only who lays it out loads it. */
async function pastOf(): Promise<Readonly<Record<'runs' | 'jobs', readonly Event[]>>> {
  const { pastRuns } = await import('./history/book.ts')
  const { DEMO_JOBS } = await import('./history/jobs.ts')
  const { jobEvents, pastEvents } = await import('./history/lay-job.ts')
  const jobOf = (job: DemoJob) => {
    const slip = slipOf(job)
    return jobEvents(job, momentOf(slip.opened), slip.by)
  }
  return { runs: pastEvents(pastRuns(DEMO_NOW)), jobs: DEMO_JOBS.flatMap(jobOf) }
}

/** Seeds an empty, migrated database. `realNow` is the real time in ms: the shop's clock hangs on it. */
export async function seedDemo(db: Database, realNow: number): Promise<void> {
  const { runs, jobs } = await pastOf()
  await db.transaction(async (trx) => {
    await foundShop(trx, {
      name: 'Ninebark Repair Co-op',
      place: 'Gannet Quay',
      zone: 'UTC',
      demo: true,
      clockOffsetMs: DEMO_NOW - realNow,
      firstSlip: FIRST_FREE_SLIP,
    })
    await insertBench(trx, {
      ports: PORTS.map((name) => ({ name, note: '' })),
      cables: CABLES.map(([name, port, note]) => ({ name, port, note })),
    })
    const events = [...peopleEvents(), ...runs, ...DEMO_SLIPS.flatMap(slipEvents), ...jobs]
    for (const { at, tell } of events.sort((a, b) => a.at - b.at))
      await tell(trx, { clock: { now: () => Promise.resolve(at) } })
  })
}

function peopleEvents(): Event[] {
  const founded = momentOf('-190 08:00')
  return DEMO_PEOPLE.map(({ id, name, role, pin }, index) => ({
    at: ms(founded + index * 60_000),
    async tell(trx, at) {
      const addedAt = new Date(await at.clock.now())
      await insertPerson(trx, {
        id,
        name,
        role,
        active: true,
        addedAt,
        pinHash: await hashPin(pin),
      })
      const isFounder = index === 0
      await enter(at, trx, {
        by: idOf('Ilse'),
        act: isFounder ? 'shop.founded' : 'person.added',
        facts: isFounder ? { firstSlip: 1 } : { person: id, role },
      })
    },
  }))
}

/** The slip that a job is of. */
function slipOf({ number }: DemoJob): DemoSlip {
  const slip = DEMO_SLIPS.find((one) => one.number === number)
  if (slip === undefined) throw new Error(`no slip ${number}`)
  return slip
}

function slipEvents(slip: DemoSlip): Event[] {
  const opened = momentOf(slip.opened)
  const notes = slip.notes.map(([by, at, text]): Event => ({
    at: momentOf(at),
    async tell(trx, time) {
      const note = await layText(trx, slip.number, text)
      const entry = { by: idOf(by), act: 'slip.noted', slip: slip.number, facts: {} } as const
      await enter(time, trx, { ...entry, texts: { note } })
    },
  }))
  const events: Event[] = [{ at: opened, tell: (trx, at) => open(trx, at, slip) }, ...notes]
  if (slip.state !== 'open') events.push(endOf(slip, slip.state, opened))
  return events
}

async function open(trx: Transaction, at: At, slip: DemoSlip): Promise<void> {
  const customer = await layText(trx, slip.number, slip.customer)
  const words = await layText(trx, slip.number, slip.words)
  const due = slip.due === null ? null : isoOf(momentOf(slip.due))
  const { number, device, model, intent, promise, stage, state } = slip
  const openedBy = idOf(slip.by)
  await insertSlip(trx, {
    number,
    device,
    model,
    intent,
    promise,
    stage,
    state,
    due,
    openedAt: isoOf(await at.clock.now()),
    openedBy,
    customerText: customer.id,
    wordsText: words.id,
  })
  await enter(at, trx, {
    by: openedBy,
    act: 'slip.opened',
    slip: number,
    facts: { device, model: model ?? '', intent, promise, due: due ?? '' },
    texts: { customer, words },
  })
}

/** How long after opening a slip of the demo came to its state. */
const LATER_MS = 20 * 60_000

function endOf(slip: DemoSlip, to: SlipState, opened: Ms): Event {
  const at = Math.min(opened + LATER_MS, DEMO_NOW - 60_000)
  return {
    at: ms(at),
    async tell(trx, time) {
      const reason =
        slip.reason === undefined ? undefined : await layText(trx, slip.number, slip.reason)
      await enter(time, trx, {
        by: idOf(slip.by === 'Juno' ? 'Ilse' : slip.by),
        act: 'slip.state',
        slip: slip.number,
        facts: { from: 'open', to },
        ...(reason === undefined ? {} : { texts: { reason } }),
      })
    },
  }
}
