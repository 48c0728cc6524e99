/** What was done to prepare a slip's device, on any piece of its work: that is what is undone when it is handed back. */
import type { Prepared } from '@plain-slate/core'
import { modeOfKind } from '@plain-slate/core'
import type { JobAt } from './job-at.ts'

/** What was said on an earlier piece of work is undone at the end of all of it too. */
export const preparedOf = (job: JobAt): Prepared => ({
  permission: wasPermitted(job),
  copies: leftCopies(job),
  restore: job.all.some(({ topic }) => topic === 'ready.restore'),
  addons: job.all.some(({ topic, answer }) => topic === 'ready.addons' && answer === 'done'),
})

/** Somebody gave it, a step of the plan had it given, or its running system answered over the link. */
function wasPermitted({ all, family, readings, taken, run }: JobAt): boolean {
  const system = family === undefined ? undefined : modeOfKind(family, 'system')
  return (
    all.some(({ topic, answer }) => topic === 'ready.permission' && answer === 'done') ||
    readings.some(({ source, mode }) => source === 'link' && mode === system) ||
    (run !== undefined &&
      taken?.made.plan.steps.some(
        (step) => 'what' in step && String(step.what) === 'permission',
      ) === true)
  )
}

/** A copy that the run brought and neither dropped nor wiped, as far as it came. */
function leftCopies({ run, taken }: JobAt): boolean {
  if (run === undefined || taken === undefined) return false
  const kinds = taken.made.plan.steps.map(({ kind }) => kind)
  const wiped = taken.shown.fates.some(({ fate }) => fate === 'wiped')
  const gone = run.state === 'ended' && (kinds.includes('drop') || wiped)
  return kinds.includes('copy') && !gone
}
