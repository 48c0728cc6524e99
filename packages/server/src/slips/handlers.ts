/** Handlers of slips. */
import type { Contract, SlipQuery } from '@plain-slate/api'
import { SLIPS_A_PAGE } from '@plain-slate/api'
import { isoOf, ok, refuse } from '@plain-slate/core'
import { sendCsv } from '../edge/csv.ts'
import { WRITTEN, someone } from '../edge/mount.ts'
import type { Handler } from '../edge/mount.ts'
import type { Workshop } from '../base/workshop.ts'
import { listEntries } from '../tables/book.ts'
import { countSlips, countStates, listSlips, readSlip } from '../tables/slips.ts'
import { careCalendar, listCare } from './care.ts'
import { noteOnSlip, withdrawSlip } from './acts.ts'
import { changeSlip } from './change.ts'
import { openSlip } from './open.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

/** What leaves as a file leaves whole: more slips than a shop has in its life. */
const CSV_MOST = 1_000_000
/** A slip's history is shown whole up to this many entries. */
const HISTORY_MAX = 500

export function slipHandlers(workshop: Workshop) {
  const slips: Of<'slips'> = async ({ query }) => {
    const [found, states] = await Promise.all([
      countSlips(workshop.db, query),
      countStates(workshop.db, query),
    ])
    const pages = Math.max(1, Math.ceil(found / SLIPS_A_PAGE))
    /* Slips go away under a list that is open: past the last page stands the last. */
    const page = Math.min(query.page ?? 1, pages)
    const span = { from: (page - 1) * SLIPS_A_PAGE, most: SLIPS_A_PAGE }
    const rows = await listSlips(workshop.db, query, span)
    const total = Object.values(states).reduce((sum, n) => sum + n, 0)
    return ok({ rows, found, page, pages, total, states })
  }
  const slipsCsv: Of<'slipsCsv'> = async ({ query, res }) => {
    const day = isoOf(await workshop.clock.now()).slice(0, 10)
    await sendCsv(res, `slips-${day}.csv`, CSV_COLUMNS, await csvRows(workshop, query))
    return ok(WRITTEN)
  }
  const slipOpen: Of<'slipOpen'> = async (call) =>
    ok(await openSlip(workshop, call.body, call.actor?.id ?? null))

  const slip: Of<'slip'> = async ({ params: { number } }) => {
    const found = await readSlip(workshop.db, number)
    return found === undefined ? refuse({ code: 'slip.unknown', facts: { number } }) : ok(found)
  }
  const slipChange: Of<'slipChange'> = (call) =>
    changeSlip(workshop, call.params.number, call.body, someone(call).id)

  const slipHistory: Of<'slipHistory'> = async ({ params: { number } }) =>
    ok(await listEntries(workshop.db, { slip: number }, HISTORY_MAX))

  const slipNote: Of<'slipNote'> = (call) =>
    noteOnSlip(workshop, call.params.number, call.body.text, someone(call).id)

  const slipWithdraw: Of<'slipWithdraw'> = (call) =>
    withdrawSlip(workshop, call.params.number, someone(call), call.body.second)

  const care: Of<'care'> = async () => ok(await listCare(workshop))
  const careFile: Of<'careFile'> = async ({ res }) => {
    res.setHeader('content-disposition', 'attachment; filename="aftercare.ics"')
    res.type('text/calendar').send(await careCalendar(workshop))
    return ok(WRITTEN)
  }

  return {
    care,
    careFile,
    slips,
    slipsCsv,
    slipOpen,
    slip,
    slipChange,
    slipHistory,
    slipNote,
    slipWithdraw,
  }
}

const CSV_COLUMNS = [
  'number',
  'device',
  'model',
  'customer',
  'intent',
  'promise',
  'stage',
  'state',
  'due',
  'opened',
]

async function csvRows(workshop: Workshop, query: SlipQuery): Promise<string[][]> {
  const rows = await listSlips(workshop.db, query, { from: 0, most: CSV_MOST })
  return rows.map((row) => [
    row.number,
    row.device,
    row.model ?? '',
    row.customer ?? '',
    row.intent,
    row.promise,
    row.stage,
    row.state,
    row.due ?? '',
    row.openedAt,
  ])
}
