/**
 * Words that hold a run: what is said against the work while its run lives stands on the run's page at once, and stops it
 * where it is safe to wait.
 */
import type { Line } from '@plain-slate/core'
import { isAgainst, msOf } from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import { stopWhereSafe } from '../runs/held.ts'
import { aliveRuns, putAgainst } from '../tables/alive.ts'
import type { Transaction } from '../tables/database.ts'
import { tell } from '../tables/news.ts'
import type { RunRow, WordAgainst } from '../tables/runs.ts'
import { consentsOf } from './consents.ts'
import type { JobAt } from './job-at.ts'
import { loadJobIn } from './load.ts'

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
          /* What stood beside another word may have been said by somebody else. */
          by: who !== undefined && who.name === line.by ? who.id : null,
          name: line.by ?? null,
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
