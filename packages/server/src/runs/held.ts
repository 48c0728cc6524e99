/**
 * Words that hold a run: what is said against the work while its run lives stands on the run's page at once, and stops it
 * at the next place where it is safe to wait: not while of a part that it needs to be written there is one copy, in doubt.
 */
import type { Line } from '@plain-slate/core'
import { isAgainst, isStopOpen, msOf, singleCopyInDoubt } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import { consentsOf } from '../job/consents.ts'
import type { JobAt } from '../job/job-at.ts'
import { loadJobIn } from '../job/load.ts'
import { aliveRuns, putAgainst } from '../tables/alive.ts'
import type { Transaction } from '../tables/database.ts'
import { readJournal } from '../tables/journals.ts'
import { tell } from '../tables/news.ts'
import type { RunRow, WordAgainst } from '../tables/runs.ts'
import { askStop } from '../tables/runs.ts'

/** A slip whose run lives stays as it is: said with where the run stands. */
export const livesRefusal = (number: string, { port, shown, steps }: RunRow): Refusal => ({
  code: 'slip.run-lives',
  facts: { number, port, step: stepNow(shown?.next ?? 0, steps), steps: steps.length },
})
const stepNow = (next: number, steps: RunRow['steps']): number =>
  steps.findLast(({ firstCommand }) => firstCommand <= next)?.number ?? 1

/** Who said what is put down now. */
export type Said = { readonly id: string; readonly name: string } | undefined

/** Has a run of a slip know what stands against it after something was said; stops it where that is safe. */
export async function holdByWord(
  workshop: Workshop,
  trx: Transaction,
  number: string,
  who: Said,
): Promise<void> {
  const [run] = await aliveRuns(trx, { slip: number })
  if (run === undefined) return
  const job = await loadJobIn(workshop, number, trx)
  if (!job.ok) return
  const line = standsAgainst(job.value, run)
  const isKnown = line?.topic === run.against?.topic && line?.answer === run.against?.answer
  if (isKnown) return
  const against: WordAgainst | null =
    line === undefined
      ? null
      : {
          topic: line.topic,
          answer: line.answer,
          by: who?.id ?? null,
          name: who?.name ?? null,
          at: new Date(line.at).toISOString(),
        }
  await putAgainst(trx, run.id, against)
  if (against !== null) await stopWhereSafe(workshop, trx, { ...run, against })
  await tell(trx, ['run', 'bench', 'work'], run.id, run.version + 1)
}

/** What was said against the work since the run began, and stands: a halt of Intake, or a consent that its plan needs. */
function standsAgainst(job: JobAt, run: RunRow): Line | undefined {
  const needed = consentsOf(job)
  return [...job.lines.values()].find(
    ({ topic, answer, at }) =>
      at >= msOf(run.startedAt) &&
      isAgainst(topic, answer) &&
      (!/^(fate|consent)\./.test(topic) || needed.includes(topic)),
  )
}

/** Stops a run that a word holds, in the name of whoever said it; false: it is not safe to wait here, or nothing is to stop. */
export async function stopWhereSafe(
  workshop: Workshop,
  trx: Transaction,
  run: RunRow,
): Promise<boolean> {
  const { against, id, slip } = run
  if (against === null || !['wanted', 'running'].includes(run.state)) return false
  if (isStopOpen(run.stop) || (await isInDoubt(workshop, trx, run))) return false
  if (!(await askStop(trx, id))) return false
  const { by, topic, answer } = against
  const facts = { run: id, topic, answer }
  const entry = { by, act: 'run.stop-asked' as const, facts }
  await enter(workshop, trx, slip === null ? entry : { ...entry, slip })
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
