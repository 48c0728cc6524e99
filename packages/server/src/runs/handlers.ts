/** Handlers of runs. */
import type { Contract, RunShown } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import type { Handler } from '../edge/mount.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import type { RunRow } from '../tables/runs.ts'
import { listRuns, readRun } from '../tables/runs.ts'
import { doneByHand, moveRun, putAwayRun, stopRun, takeUpRun } from './acts.ts'
import { runRowOf, showRun } from './show.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

export function runHandlers(workshop: Workshop) {
  const shown = async (run: Result<RunRow, Refusal>): Promise<Result<RunShown, Refusal>> =>
    run.ok ? ok(await showRun(workshop, run.value)) : run

  const runs: Of<'runs'> = async () =>
    ok((await listRuns(workshop.db, 'all')).map((one) => runRowOf(workshop.families, one)))
  const run: Of<'run'> = async ({ params: { id } }) => {
    const found = await readRun(workshop.db, id)
    return shown(found === undefined ? refuse({ code: 'run.unknown', facts: { id } }) : ok(found))
  }
  const runDone: Of<'runDone'> = async ({ params: { id }, body, actor }) =>
    shown(await doneByHand(workshop, { id, by: actor?.id ?? null }, body.command))
  const runStop: Of<'runStop'> = async ({ params: { id }, actor }) =>
    shown(await stopRun(workshop, { id, by: actor?.id ?? null }))
  const runTakeUp: Of<'runTakeUp'> = async ({ params: { id }, actor }) =>
    shown(await takeUpRun(workshop, { id, by: actor?.id ?? null }))
  const runMove: Of<'runMove'> = async ({ params: { id }, body, actor }) =>
    shown(await moveRun(workshop, { id, by: actor?.id ?? null }, body.port))
  const runPutAway: Of<'runPutAway'> = async ({ params: { id }, actor }) =>
    shown(await putAwayRun(workshop, { id, by: actor?.id ?? null }))
  return { runs, run, runDone, runStop, runTakeUp, runMove, runPutAway }
}
