/**
 * A maker's permit taken in as a file: read, its signature held against the trust store, kept by its digest, and put down
 * on the slip. Read again with the slip, it is held against the keys that are trusted then.
 */
import { createHash } from 'node:crypto'
import type { BroughtPermit, Lines, PermitFile, Result } from '@plain-slate/core'
import {
  PERMIT_TOPIC,
  permitFileOf,
  permitSigned,
  permitText,
  readPermitFile,
  refuse,
  wirePermit,
} from '@plain-slate/core'
import type { Refusal } from '../base/refusal.ts'
import type { TrustedKey } from '../base/trust.ts'
import { signerOf, trustedKeys } from '../base/trust.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Database } from '../tables/database.ts'
import { insertPermit, readPermitText } from '../tables/permits.ts'
import type { JobAt } from './job-at.ts'
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

const signedBy = (keys: readonly TrustedKey[], permit: PermitFile): TrustedKey | undefined =>
  signerOf(keys, permitSigned(permit), permit.signature)

/** What the file says on which a slip's permit rests, by its digest; nothing where no trusted key signed it any more. */
export async function permitFiles(
  workshop: Workshop,
  db: Database,
  lines: Lines,
): Promise<ReadonlyMap<string, BroughtPermit>> {
  const sha256 = permitFileOf(lines.get(PERMIT_TOPIC)?.answer ?? '')
  const text = sha256 === undefined ? undefined : await readPermitText(db, sha256)
  const read = text === undefined ? undefined : readPermitFile(text)
  if (sha256 === undefined || read?.ok !== true) return new Map()
  const key = signedBy(await trustedKeys(workshop), read.value)
  if (key === undefined) return new Map()
  const { maker, from, packages } = read.value
  const signed = { maker, from, packages, key: key.name }
  return new Map([[sha256, { ...wirePermit(read.value), signed }]])
}
