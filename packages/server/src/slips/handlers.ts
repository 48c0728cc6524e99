/** Handlers of slips. */
import type { Contract, SlipQuery } from '@plain-slate/api'
import { isoOf, ok, refuse } from '@plain-slate/core'
import { sendCsv } from '../edge/csv.ts'
import { WRITTEN } from '../edge/mount.ts'
import type { Call, Handler } from '../edge/mount.ts'
import type { House } from '../house.ts'
import { listEntries } from '../tables/book.ts'
import { countStates, listSlips, readSlip } from '../tables/slips.ts'
import { listCare } from './care.ts'
import { noteOnSlip, setSlipState, withdrawSlip } from './acts.ts'
import { changeSlip } from './change.ts'
import { openSlip } from './open.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

/** A slip's history is shown whole up to this many entries. */
const HISTORY_MAX = 500

/** Routes that need a role have somebody; the mount saw to it. */
function someone(call: Pick<Call<Contract['slip']>, 'actor'>) {
  if (call.actor === undefined) throw new Error('a route that needs a role was reached by nobody')
  return call.actor
}

export function slipHandlers(house: House) {
  const slips: Of<'slips'> = async ({ query }) => {
    const [rows, states] = await Promise.all([
      listSlips(house.db, query),
      countStates(house.db, query),
    ])
    const total = Object.values(states).reduce((sum, n) => sum + n, 0)
    return ok({ rows, total, states })
  }
  const slipsCsv: Of<'slipsCsv'> = async ({ query, res }) => {
    const day = isoOf(await house.clock.now()).slice(0, 10)
    await sendCsv(res, `slips-${day}.csv`, CSV_COLUMNS, await csvRows(house, query))
    return ok(WRITTEN)
  }
  const slipOpen: Of<'slipOpen'> = async (call) =>
    ok(await openSlip(house, call.body, call.actor?.id ?? null))

  const slip: Of<'slip'> = async ({ params: { number } }) => {
    const found = await readSlip(house.db, number)
    return found === undefined ? refuse({ code: 'slip.unknown', facts: { number } }) : ok(found)
  }
  const slipChange: Of<'slipChange'> = (call) =>
    changeSlip(house, call.params.number, call.body, someone(call).id)

  const slipState: Of<'slipState'> = (call) =>
    setSlipState(house, call.params.number, call.body, someone(call).id)

  const slipHistory: Of<'slipHistory'> = async ({ params: { number } }) =>
    ok(await listEntries(house.db, { slip: number }, HISTORY_MAX))

  const slipNote: Of<'slipNote'> = (call) =>
    noteOnSlip(house, call.params.number, call.body.text, someone(call).id)

  const slipWithdraw: Of<'slipWithdraw'> = (call) =>
    withdrawSlip(house, call.params.number, someone(call), call.body.second)

  const care: Of<'care'> = async () => ok(await listCare(house))

  return {
    care,
    slips,
    slipsCsv,
    slipOpen,
    slip,
    slipChange,
    slipState,
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

async function csvRows(house: House, query: SlipQuery): Promise<string[][]> {
  const rows = await listSlips(house.db, query)
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
