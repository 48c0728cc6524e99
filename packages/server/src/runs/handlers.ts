/** Handlers of plans and runs. */
import type { Contract, RunShown } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import type { Handler } from '../edge/mount.ts'
import type { House } from '../house.ts'
import type { Refusal } from '../refusal.ts'
import type { RunRow } from '../tables/runs.ts'
import { listRuns, readRun } from '../tables/runs.ts'
import { doneByHand, putAwayRun, stopRun, takeUpRun } from './acts.ts'
import { fitAt, planAt } from './plan.ts'
import { runRowOf, showRun } from './show.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

export function runHandlers(house: House) {
  const shown = async (run: Result<RunRow, Refusal>): Promise<Result<RunShown, Refusal>> =>
    run.ok ? ok(await showRun(house, run.value)) : run

  const fit: Of<'fit'> = ({ params: { port }, body }) => fitAt(house, port, body)
  const plan: Of<'plan'> = async ({ body }) => {
    const planned = await planAt(house, body)
    return planned.ok ? ok(planned.value.shown) : planned
  }
  const runs: Of<'runs'> = async () => ok((await listRuns(house.db, 'all')).map(runRowOf))
  const run: Of<'run'> = async ({ params: { id } }) => {
    const found = await readRun(house.db, id)
    return shown(found === undefined ? refuse({ code: 'run.unknown', facts: { id } }) : ok(found))
  }
  const runDone: Of<'runDone'> = async ({ params: { id }, body, actor }) =>
    shown(await doneByHand(house, { id, by: actor?.id ?? null }, body.command))
  const runStop: Of<'runStop'> = async ({ params: { id }, actor }) =>
    shown(await stopRun(house, { id, by: actor?.id ?? null }))
  const runTakeUp: Of<'runTakeUp'> = async ({ params: { id }, actor }) =>
    shown(await takeUpRun(house, { id, by: actor?.id ?? null }))
  const runPutAway: Of<'runPutAway'> = async ({ params: { id }, actor }) =>
    shown(await putAwayRun(house, { id, by: actor?.id ?? null }))
  return { fit, plan, runs, run, runDone, runStop, runTakeUp, runPutAway }
}
