/** What is due on a slip after its work, as a page shows it: days put down, and those that ought to be. */
import type { Job } from '@plain-slate/api'
import type { DueAsked } from '@plain-slate/core'
import { duesAsked, duesOf } from '@plain-slate/core'
import { HOLD_DAYS, PATCH_LOOK_DAYS } from '../shop/rules.ts'
import type { JobAt } from './job-at.ts'

export const duesShown = (job: JobAt, today: string): Job['dues'] => ({
  standing: [...duesOf(job.lines)],
  asked: duesOfJob(job, today).map(({ what, on }) => ({ what, on: on ?? null })),
})

/** A package counts as put on once its run has ended. */
function duesOfJob(
  { lines, family, identity, slip, run }: JobAt,
  today: string,
): readonly DueAsked[] {
  const written = run?.state === 'ended' ? run.plan.packages.at(-1)?.manifest : undefined
  const days = { hold: HOLD_DAYS, patch: PATCH_LOOK_DAYS }
  return duesAsked({ lines, family, identity, intent: slip.intent, written, today, days })
}
