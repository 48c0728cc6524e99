/**
 * A maker's permit as a file: for which device, of what kind, for which packages, between which days, signed by its
 * maker. Reads the text of a file; gives the permit, or where it is wrong. Whose signature it bears is for whoever holds
 * keys to say: `permitSigned` is what was signed (RFC 8785 text of all but the signature).
 */
import { z } from 'zod'
import type { Json } from '../canon/canon.ts'
import { canonical } from '../canon/canon.ts'
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'
import { permitWordSchema } from '../terms/permit-word.ts'
import { isStorable } from './manifest.ts'

export const PERMIT_FORMAT = 'plain-slate/permit@1'
/** A longer file is no permit. */
export const PERMIT_CHARS_MAX = 65_536

const text = z
  .string()
  .min(1)
  .max(120)
  // eslint-disable-next-line no-control-regex -- they are what is refused
  .regex(/^[^\u0000-\u001f\u007f]*$/, 'no control characters')

export const permitFileSchema = z.strictObject({
  format: z.literal(PERMIT_FORMAT),
  id: permitWordSchema,
  /** Who grants it. */
  maker: text,
  /** The id that is fused into the device. */
  device: permitWordSchema,
  scope: permitWordSchema,
  /** Ids of the packages it is for. */
  packages: z.array(text).min(1).max(100),
  /** The first and the last day on which it may be used. */
  from: z.iso.date(),
  until: z.iso.date(),
  /** Ed25519 over `permitSigned`, in base64. */
  signature: z.base64().length(88),
})
export type PermitFile = z.infer<typeof permitFileSchema>
export type UnsignedPermit = Omit<PermitFile, 'signature'>

export type NoPermitFile = { readonly path: string; readonly problem: string }

export function readPermitFile(textOf: string): Result<PermitFile, NoPermitFile> {
  if (textOf.length >= PERMIT_CHARS_MAX)
    return refuse({ path: '', problem: 'it is longer than any permit' })
  let raw: unknown
  try {
    raw = JSON.parse(textOf)
  } catch {
    return refuse({ path: '', problem: 'it is no JSON' })
  }
  if (!isStorable(raw))
    return refuse({ path: '', problem: 'a text with a NUL or half a character' })
  const parsed = permitFileSchema.safeParse(raw)
  if (!parsed.success) {
    const [issue] = parsed.error.issues
    return refuse({ path: issue?.path.map(String).join('.') ?? '', problem: issue?.message ?? '' })
  }
  return parsed.data.until < parsed.data.from
    ? refuse({ path: 'until', problem: 'before its first day' })
    : ok(parsed.data)
}

/** What a maker signs: all of a permit but its signature. */
export function permitSigned(permit: UnsignedPermit): string {
  const { signature: _, ...rest } = permit as Partial<PermitFile>
  return canonical(rest as unknown as Json)
}
