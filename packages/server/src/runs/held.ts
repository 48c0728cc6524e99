/**
 * A run that a word holds: it stops at the next place where it is safe to wait, not while of a part that it needs to be
 * written there is one copy, in doubt, and it does not go on while the word stands.
 */
import { isStopOpen, singleCopyInDoubt } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Transaction } from '../tables/database.ts'
import { readJournal } from '../tables/journals.ts'
import { tell } from '../tables/news.ts'
import type { RunRow } from '../tables/runs.ts'
import { askStop } from '../tables/runs.ts'

/** Stops a run that a word holds, in the name of whoever said it; false: it is not safe to wait here, or nothing is to stop. */
export async function stopWhereSafe(
  workshop: Workshop,
  trx: Transaction,
  run: RunRow,
): Promise<boolean> {
  const { against, id, slip } = run
  if (against === null || !['wanted', 'running'].includes(run.state)) return false
  if (isStopOpen(run.stop) || (await isInDoubt(workshop, trx, run))) return false
  const { by, topic, answer } = against
  if (!(await askStop(trx, id, by))) return false
  const facts = { run: id, topic, answer }
  const entry = { by, act: 'run.stop-asked' as const, facts }
  await enter(workshop, trx, slip === null ? entry : { ...entry, slip })
  await tell(trx, ['work'], id, 1)
  return true
}

/** Whether of a part that it needs to be written there is one copy, which an act left unproven. */
export async function isInDoubt(
  { families }: Workshop,
  db: Parameters<typeof readJournal>[0],
  run: RunRow,
): Promise<boolean> {
  const family = families.find(({ id }) => id === run.plan.family)
  if (family === undefined) return false
  return singleCopyInDoubt(family, run.commands, await readJournal(db, run.id)) !== undefined
}

/** Why a run may not go on: a word stands against it. One in doubt goes on, to the next place where it is safe to wait. */
export async function againstGoingOn(
  workshop: Workshop,
  run: RunRow,
): Promise<Refusal | undefined> {
  if (run.against === null || (await isInDoubt(workshop, workshop.db, run))) return undefined
  const { topic, answer, name } = run.against
  return { code: 'run.against', facts: { topic, answer, by: name ?? '' } }
}
