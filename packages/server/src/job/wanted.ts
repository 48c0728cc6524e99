/**
 * What is named at the counter of what it is to be: the region it will be used in, the variant, the build. What may be
 * answered hangs on what the device is; what is typed instead is held against that.
 */
import type { FactValue, Manifest } from '@plain-slate/core'
import {
  ANY_BUILD,
  BUILD_TOPIC,
  REGION_TOPIC,
  ROW_TOPIC,
  better,
  rowText,
  said,
  settled,
} from '@plain-slate/core'
import type { JobAt } from './job-at.ts'
import { onceOf } from './kept.ts'

/** What may be answered where that hangs on what the device is; undefined: it does not. */
export function choicesOf(job: JobAt, topic: string): readonly string[] | undefined {
  switch (topic) {
    case REGION_TOPIC:
      return ['here', ...new Set((job.family?.variants ?? []).map(({ region }) => region))]
    case ROW_TOPIC:
      return [...new Set([...rowsOf(job).map(rowText), ...saidOf(job, ROW_TOPIC)])]
    case BUILD_TOPIC:
      return [...new Set([ANY_BUILD, ...buildsHere(job), ...saidOf(job, BUILD_TOPIC)])]
    default:
      return undefined
  }
}

/** Topics whose answers hang on what the device is. */
export const HANGING: readonly string[] = [REGION_TOPIC, ROW_TOPIC, BUILD_TOPIC]

/** Whether it is asked which variant it is to be: where another is wanted, as soon as a family says which there are. */
export const asksRow = (job: JobAt): boolean =>
  job.slip.intent === 'variant-change' && rowsOf(job).length > 0

/** What the family says of each variant that may be named. */
export const saysOfRows = (job: JobAt): string[] =>
  rowsOf(job).map((row) => `${rowText(row)}: ${row.name}.`)

const modelOf = ({ identity, slip }: JobAt): FactValue | undefined =>
  settled(identity, 'model') ?? slip.model ?? undefined

/** The variants in which devices of its model are sold. */
function rowsOf(job: JobAt) {
  const all = job.family?.variants ?? []
  const model = String(modelOf(job) ?? '')
  const own = all.filter(({ models }) => models?.includes(model) !== false)
  return own.length > 0 ? own : all
}

/** What stands is shown among the answers, also where its model was corrected since, or the build is not here. */
const saidOf = ({ lines }: JobAt, topic: string): readonly string[] => {
  const named = said(lines, topic)
  return named === undefined ? [] : [named]
}

/** Builds that are here for its model, each once, what serves the intent best first; parts alone bring none. */
const buildsHere = onceOf((job: JobAt): readonly string[] => {
  const model = modelOf(job)
  const of = job.shelf.map(({ manifest }) => manifest).filter((one) => isBuildFor(one, model))
  const at = job.found?.at
  const sorted = at === undefined ? of : of.sort((a, b) => better(at, a, b))
  return [...new Set(sorted.map(({ build }) => build))]
})
const isBuildFor = ({ kind, targets }: Manifest, model: FactValue | undefined): boolean =>
  (kind === 'full' || kind === 'incremental') && targets.some((one) => one.model === model)
