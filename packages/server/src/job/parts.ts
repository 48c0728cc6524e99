/**
 * Parts of a job as they were read last, each by the marks that it rests on: what did not change is not read again. Only
 * what was committed is kept; inside a transaction that writes everything is read.
 */
import type { Workshop } from '../base/workshop.ts'
import type { JobMarks, JobPart } from '../tables/job-mark.ts'

/** Reads a part, or gives it as it was read under the same marks. */
export type Parts = <Value>(
  name: string,
  on: readonly JobPart[],
  read: () => Promise<Value>,
) => Promise<Value>

/** Reads whatever it is asked for. */
export const readAll: Parts = (_, __, read) => read()

type Kept = { readonly mark: string; readonly value: unknown }
const shops = new WeakMap<Workshop, Map<string, Kept>>()
/** Parts that are kept, those asked for last; past that the oldest is read anew. */
const PARTS_MOST = 2000

/** The parts of one slip under its marks; `about`: the slip, or nothing where a part is the same for all. */
export function partsUnder(workshop: Workshop, marks: JobMarks): Parts {
  const mine = shops.get(workshop) ?? new Map<string, Kept>()
  shops.set(workshop, mine)
  return async <Value>(name: string, on: readonly JobPart[], read: () => Promise<Value>) => {
    const mark = on.map((part) => marks[part] ?? '').join('|')
    const before = mine.get(name)
    mine.delete(name)
    const kept = before?.mark === mark ? before : { mark, value: await read() }
    mine.set(name, kept)
    const [oldest] = mine.keys()
    if (mine.size > PARTS_MOST && oldest !== undefined) mine.delete(oldest)
    return kept.value as Value
  }
}
