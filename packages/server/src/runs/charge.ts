/**
 * The charge that a run goes on with: what the device said last at its port, against what the rest of the plan may draw.
 * Too little stands on the run's page and stops it where it is safe to wait, as a word against the work does.
 */
import type { DeviceFacts, Family } from '@plain-slate/core'
import { isStopOpen, placeOf, restDraws, stepAt } from '@plain-slate/core'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import { enter } from '../book/append.ts'
import { askStop, listRuns, readRun } from '../tables/runs.ts'
import { putLow } from '../tables/alive.ts'
import type { Low, RunRow } from '../tables/runs.ts'
import { listSights } from '../tables/devices.ts'
import { readJournal } from '../tables/journals.ts'
import { tell } from '../tables/news.ts'
import { isInDoubt } from './held.ts'

/** Undefined: it is enough, nobody knows, or its device is not the one that hangs there. `next`: the command under way. */
export function shortOf(
  family: Family | undefined,
  run: RunRow,
  next: number,
  facts: DeviceFacts | null | undefined,
): Low | undefined {
  const charge = facts?.serial === run.serial ? facts.batteryPercent : undefined
  const step = stepAt(run.steps, next)
  if (family === undefined || charge === undefined || step === undefined) return undefined
  const needs = restDraws(family, run.plan, step.number)
  return charge < needs ? { charge, needs } : undefined
}

const familyOf = ({ families }: Workshop, run: RunRow): Family | undefined =>
  families.find(({ id }) => id === run.plan.family)

async function shortNow(
  workshop: Workshop,
  run: RunRow,
  at: string = run.port,
): Promise<Low | undefined> {
  const sight = (await listSights(workshop.db)).find(({ port }) => port === at)
  const next = Math.max(placeOf(await readJournal(workshop.db, run.id)).next, run.shown?.next ?? 0)
  return shortOf(familyOf(workshop, run), run, next, sight?.facts)
}

/** Stops a run whose device has too little charge for the rest, where that is safe; nothing where it has enough. */
export async function stopWhereShort(workshop: Workshop, id: string): Promise<void> {
  const run = await readRun(workshop.db, id)
  if (run?.state !== 'running' || isStopOpen(run.stop)) return
  const short = await shortNow(workshop, run)
  if (short === undefined) return
  await workshop.db.transaction(async (trx) => {
    if ((await isInDoubt(workshop, trx, run)) || !(await askStop(trx, id, null))) return
    await putLow(trx, id, short)
    const entry = { by: null, act: 'run.stop-asked' as const, facts: { run: id, ...short } }
    await enter(workshop, trx, run.slip === null ? entry : { ...entry, slip: run.slip })
    await tell(trx, ['run', 'bench', 'work'], id, 1)
  })
}

/** The same of every run at these ports. */
export async function stopShortAt(workshop: Workshop, ports: readonly string[]): Promise<void> {
  if (ports.length === 0) return
  for (const run of await listRuns(workshop.db, 'at-ports'))
    if (run.state === 'running' && ports.includes(run.port)) await stopWhereShort(workshop, run.id)
}

/** Why a run does not go on at a port while its device has too little; one in doubt goes on to where it is safe to wait. */
export async function tooShort(
  workshop: Workshop,
  run: RunRow,
  at?: string,
): Promise<Refusal | undefined> {
  const short = await shortNow(workshop, run, at)
  if (short === undefined || (await isInDoubt(workshop, workshop.db, run))) return undefined
  return { code: 'run.charge', facts: { ...short } }
}
