/** Starting the plan that was taken: everything of Ready must hold, and the plan must be that one. */
import type { Result } from '@plain-slate/core'
import { refuse } from '@plain-slate/core'
import { sayAny } from '@plain-slate/texts'
import type { House } from '../house.ts'
import type { Refusal } from '../refusal.ts'
import { startPlanned } from '../runs/acts.ts'
import type { RunRow } from '../tables/runs.ts'
import { loadJob } from './load.ts'
import { plannedNow } from './plan.ts'
import { readyOf } from './ready.ts'
import { changesSince } from './standing.ts'

type Asked = { readonly digest: string; readonly by: string | null; readonly name: string }

export async function startJob(
  house: House,
  number: string,
  { digest, by, name }: Asked,
): Promise<Result<RunRow, Refusal>> {
  const loaded = await loadJob(house, number)
  if (!loaded.ok) return loaded
  const job = loaded.value
  const { slip, run, taken, sight } = job
  if (slip.state !== 'open')
    return refuse({ code: 'slip.ended', facts: { number, state: slip.state } })
  if (run !== undefined) return refuse({ code: 'slip.running', facts: { number } })
  if (taken === undefined) return refuse({ code: 'slip.no-plan', facts: { number } })
  if (taken.digest !== digest || changesSince(job) !== undefined)
    return refuse({ code: 'slip.stale', facts: { number } })
  const ready = await readyOf(house, job, false)
  const open = [
    ...ready.checks.filter(({ holds }) => !holds).map(({ check }) => `check.${check}`),
    ...ready.signed.filter(({ signed }) => !signed).map(({ topic }) => `topic.${topic}`),
  ]
  if (open.length > 0 || sight === undefined) {
    const what = open
      .map((code) =>
        sayAny('en-GB', code as 'check.plan', { what: job.family?.permission.what ?? '' }),
      )
      .join(', ')
    return refuse({ code: 'slip.not-ready', facts: { number, what } })
  }
  const planned = await plannedNow(house, job)
  if (!planned.ok) return planned
  return startPlanned(house, planned.value, {
    port: sight.port,
    package: taken.package,
    digest,
    slip: number,
    by,
    signed: `signed at Ready; started by ${name}`,
  })
}
