/**
 * Permits that were taken in as files, read again with the slip that names one: held against the keys that are trusted
 * now. Reads a slip's lines; gives what its file says.
 */
import type { BroughtPermit, Lines, PermitFile } from '@plain-slate/core'
import {
  PERMIT_TOPIC,
  permitFileOf,
  permitSigned,
  readPermitFile,
  wirePermit,
} from '@plain-slate/core'
import type { TrustedKey } from '../base/trust.ts'
import { signerOf, trustedKeys } from '../base/trust.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Database } from '../tables/database.ts'
import { readPermitText } from '../tables/permits.ts'

/** The trusted key that signed a permit; undefined: none did. */
export const signedBy = (keys: readonly TrustedKey[], permit: PermitFile): TrustedKey | undefined =>
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
