/**
 * A maker's permit taken in as a file: read, its signature held against the trust store, kept by its digest, and put down
 * on the slip.
 */
import { createHash } from 'node:crypto'
import type { Result } from '@plain-slate/core'
import { PERMIT_TOPIC, permitText, readPermitFile, refuse } from '@plain-slate/core'
import type { Refusal } from '../base/refusal.ts'
import { trustedKeys } from '../base/trust.ts'
import type { Workshop } from '../base/workshop.ts'
import { insertPermit } from '../tables/permits.ts'
import type { JobAt } from './job-at.ts'
import { signedBy } from './permit-files.ts'
import type { Speaker } from './say.ts'
import { putDown } from './say.ts'

/** Takes a permit's file in and puts it down on a slip; answers the job after it. */
export async function takePermit(
  workshop: Workshop,
  number: string,
  text: string,
  who: Speaker,
): Promise<Result<JobAt, Refusal>> {
  const read = readPermitFile(text)
  if (!read.ok) {
    const { problem, path } = read.refusal
    return refuse({ code: 'permit.unreadable', facts: { problem, path: path || 'none' } })
  }
  const permit = read.value
  const { id, maker } = permit
  if (signedBy(await trustedKeys(workshop), permit) === undefined)
    return refuse({ code: 'permit.unsigned', facts: { id, maker } })
  const sha256 = createHash('sha256').update(text).digest('hex')
  const line = { topic: PERMIT_TOPIC, answer: permitText(permit, sha256), note: '' }
  return putDown(workshop, number, [line], who, async (trx, at) =>
    insertPermit(trx, { sha256, text, by: who?.id ?? null, at }),
  )
}
