/**
 * What is computed of a job is kept by what it rests on: the job itself by its mark in the tables, and what
 * follows from it by the job. A page that asks again while nothing changed costs one query.
 */
import type { House } from '../house.ts'
import type { JobAt } from './load.ts'

type Kept = { readonly mark: string; readonly job: JobAt }
const jobs = new WeakMap<House, Map<string, Kept>>()
/** Slips whose jobs are kept, those asked for last; past that the oldest is computed anew. */
const JOBS_MOST = 100

/** The job of a slip with this mark, if it is kept. */
export function keptJob(house: House, number: string, mark: string): JobAt | undefined {
  const kept = jobs.get(house)?.get(number)
  return kept?.mark === mark ? kept.job : undefined
}

export function keepJob(house: House, number: string, kept: Kept): void {
  const mine = jobs.get(house) ?? new Map<string, Kept>()
  jobs.set(house, mine)
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
