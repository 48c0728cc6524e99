/**
 * Starting the plan that was taken, the one place where a run begins: for the page, the bench and the
 * shell alike. The gate must be open, and the plan must be the one that was shown.
 */
import type { Actor, Result } from '@plain-slate/core'
import { refuse } from '@plain-slate/core'
import { sayAny } from '@plain-slate/texts'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import { enterRun } from '../runs/acts.ts'
import type { RunRow } from '../tables/runs.ts'
import type { JobAt } from './job-at.ts'
import { loadJob, loadJobIn } from './load.ts'
import { plannedNow } from './plan.ts'
import { inTheWay } from './ready.ts'
import { changesSince } from './standing.ts'

/** Who starts it: somebody who is signed in, or who has the bench's secret at its shell. */
export type Starter = (Actor & { readonly name: string }) | 'shell'

/** Each refusal names what to do; the plan is made anew and must have the digest that was shown and taken. */
export async function startJob(
  workshop: Workshop,
  number: string,
  { digest, who }: { readonly digest: string; readonly who: Starter },
): Promise<Result<RunRow, Refusal>> {
  const loaded = await loadJob(workshop, number)
  if (!loaded.ok) return loaded
  const job = loaded.value
  const { run, taken, sight } = job
  if (run !== undefined) return refuse({ code: 'slip.running', facts: { number } })
  if (taken === undefined) return refuse({ code: 'slip.no-plan', facts: { number } })
  if (taken.digest !== digest || changesSince(job) !== undefined)
    return refuse({ code: 'slip.stale', facts: { number } })
  const shut = await shutGate(workshop, job, who)
  if (shut !== undefined) return refuse(shut)
  if (sight === undefined) return refuse({ code: 'slip.not-ready', facts: { number, what: '' } })
  const planned = await plannedNow(workshop, job)
  if (!planned.ok) return planned
  return enterRun(workshop, planned.value, {
    port: sight.port,
    package: taken.package,
    digest,
    slip: number,
    gate: async (trx) => {
      const now = await loadJobIn(workshop, number, trx)
      return now.ok ? shutGate(workshop, now.value, who) : now.refusal
    },
    by: who === 'shell' ? null : who.id,
    signed: `signed at Ready; started ${who === 'shell' ? 'at the shell' : `by ${who.name}`}`,
  })
}

/** Everything that stands in the way of a start, in one refusal; undefined: it may start. */
async function shutGate(
  workshop: Workshop,
  job: JobAt,
  actor: Starter,
): Promise<Refusal | undefined> {
  const { number, state } = job.slip
  if (state !== 'open') return { code: 'slip.ended', facts: { number, state } }
  const stale = changesSince(job) !== undefined
  const open = await inTheWay(workshop, job, { stale, actor })
  if (open.length === 0) return undefined
  const about = { what: job.family?.permission.what ?? '' }
  const what = open.map((code) => sayAny('en-GB', code as 'check.plan', about)).join(', ')
  return { code: 'slip.not-ready', facts: { number, what } }
}
