/** Lighter remedies of a slip: asked of its device once somebody said how far it starts, until a run of it has begun. */
import type { JobFacts, Lighter } from '@plain-slate/core'
import { curedBy, lighterOffered, lighterOpen } from '@plain-slate/core'
import type { JobAt } from './job-at.ts'

/** What is asked of this slip; once a run has begun, what was answered before. */
export function lighterAsked(job: JobAt): readonly Lighter[] {
  const offered = lighterOffered({ ...job, intent: job.slip.intent })
  return offered.filter(({ name }) => job.run === undefined || job.lines.has(`lighter.${name}`))
}

export const lighterOf = (job: JobAt): JobFacts['lighter'] => ({
  open: job.run === undefined ? lighterOpen({ ...job, intent: job.slip.intent }).length : 0,
  cured: curedBy(job.lines),
})
