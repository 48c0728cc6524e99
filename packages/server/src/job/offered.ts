/** What is answered where the answers hang on what the device is, held against them before it is put down. */
import type { BodyOf, Contract } from '@plain-slate/api'
import { BUILD_TOPIC } from '@plain-slate/core'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import { loadJob } from './load.ts'
import { readAs } from './reading.ts'
import { HANGING, choicesOf } from './wanted.ts'

type Draft = BodyOf<Contract['jobLines']>['lines'][number]

/** Why an answer that hangs on what the device is cannot be one: no such region, no such variant, no build of its family. */
export async function notOffered(
  workshop: Workshop,
  number: string,
  lines: readonly Draft[],
): Promise<Refusal | undefined> {
  const hanging = lines.filter(({ topic }) => HANGING.includes(topic))
  const job = hanging.length === 0 ? undefined : await loadJob(workshop, number)
  if (job?.ok !== true || job.value.family === undefined) return undefined
  const { family } = job.value
  for (const { topic, answer } of hanging) {
    if (choicesOf(job.value, topic)?.includes(answer) === true) continue
    if (topic !== BUILD_TOPIC) return { code: 'slip.line', facts: { topic, answer } }
    const read = await readAs(workshop, [family], 'build', answer)
    if (!read.ok) return read.refusal
  }
  return undefined
}
