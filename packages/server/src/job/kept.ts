/**
 * What is computed of a job is kept by what it rests on: the job itself by its mark in the tables, and what
 * follows from it by the job. A page that asks again while nothing changed costs one query.
 */
import type { Workshop } from '../base/workshop.ts'
import type { JobAt } from './job-at.ts'

type Kept = { readonly mark: string; readonly job: JobAt }
const jobs = new WeakMap<Workshop, Map<string, Kept>>()
/** Slips whose jobs are kept, those asked for last; past that the oldest is computed anew. */
const JOBS_MOST = 100

/** The job of a slip with this mark, if it is kept. */
export function keptJob(workshop: Workshop, number: string, mark: string): JobAt | undefined {
  const kept = jobs.get(workshop)?.get(number)
  return kept?.mark === mark ? kept.job : undefined
}

export function keepJob(workshop: Workshop, number: string, kept: Kept): void {
  const mine = jobs.get(workshop) ?? new Map<string, Kept>()
  jobs.set(workshop, mine)
  mine.delete(number)
  mine.set(number, kept)
  const [oldest] = mine.keys()
  if (mine.size > JOBS_MOST && oldest !== undefined) mine.delete(oldest)
}

/** A function of a job alone, computed once a job. */
export function onceOf<Value>(make: (job: JobAt) => Value): (job: JobAt) => Value {
  const made = new WeakMap<JobAt, { readonly value: Value }>()
  return (job) => {
    const known = made.get(job)
    if (known !== undefined) return known.value
    const value = make(job)
    made.set(job, { value })
    return value
  }
}
