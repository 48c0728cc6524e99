/** Handlers of runs. */
import type { Contract, Face, RunShown } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import type { Handler } from '../edge/mount.ts'
import { someone } from '../edge/mount.ts'
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

  const byOf = (call: {
    readonly params: { readonly id: string }
    readonly actor: Face | undefined
  }) => ({
    id: call.params.id,
    by: someone(call).id,
  })
  const runs: Of<'runs'> = async () =>
    ok((await listRuns(workshop.db, 'all')).map((one) => runRowOf(workshop.families, one)))
  const run: Of<'run'> = async ({ params: { id } }) => {
    const found = await readRun(workshop.db, id)
    return shown(found === undefined ? refuse({ code: 'run.unknown', facts: { id } }) : ok(found))
  }
  const runDone: Of<'runDone'> = async (call) =>
    shown(await doneByHand(workshop, byOf(call), call.body.command))
  const runStop: Of<'runStop'> = async (call) => shown(await stopRun(workshop, byOf(call)))
  const runTakeUp: Of<'runTakeUp'> = async (call) => shown(await takeUpRun(workshop, byOf(call)))
  const runMove: Of<'runMove'> = async (call) =>
    shown(await moveRun(workshop, byOf(call), call.body.port))
  const runPutAway: Of<'runPutAway'> = async (call) => shown(await putAwayRun(workshop, byOf(call)))
  return { runs, run, runDone, runStop, runTakeUp, runMove, runPutAway }
}
