/**
 * A depot's catalogue: what packages there are, each with its manifest and the digests of its archives, signed
 * by the depot. Reads the text of a file; gives the checked catalogue, or where it is wrong. Whose signature it
 * bears is for whoever holds keys to say: `signedText` is what was signed (RFC 8785 text of all but the signature).
 */
import { z } from 'zod'
import type { Json } from '../canon/canon.ts'
import { canonical } from '../canon/canon.ts'
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'
import type { Manifest } from './manifest.ts'
import { isStorable, manifestSchema } from './manifest.ts'

export const CATALOGUE_FORMAT = 'plain-slate/catalogue@1'
/** Packages of one catalogue; past that it is refused and has to come in parts. */
export const CATALOGUE_MOST = 200_000

/** The largest number that a table keeps. */
const NUMBER_MOST = 2_147_483_647

export const depotCatalogueSchema = z.strictObject({
  format: z.literal(CATALOGUE_FORMAT),
  /** The depot that signs it. */
  from: z
    .string()
    .trim()
    .min(1)
    .max(60)
    .regex(/^[\p{L}\p{N}][\p{L}\p{N} .,&'()-]*$/u, 'letters, digits, spaces and . , & - only'),
  /** Rises with every issue of a depot: an older one never replaces a newer. */
  number: z.int().positive().max(NUMBER_MOST),
  issued: z.iso.date(),
  /** The last day on which it may be taken in. */
  expires: z.iso.date(),
  packages: z.array(manifestSchema).min(1).max(CATALOGUE_MOST),
  /** Ed25519 over `signedText`, in base64. */
  signature: z.base64().length(88),
})
export type DepotCatalogue = z.infer<typeof depotCatalogueSchema>

export type NoCatalogue = { readonly path: string; readonly problem: string }

/** Reads a catalogue's text. Every volume of every package must bear its digest: by it alone it is known. */
export function readCatalogue(text: string): Result<DepotCatalogue, NoCatalogue> {
  const raw = jsonIn(text)
  if (raw === undefined) return refuse({ path: '', problem: 'it is no JSON' })
  if (!isStorable(raw))
    return refuse({ path: '', problem: 'a text with a NUL or half a character' })
  const parsed = depotCatalogueSchema.safeParse(raw)
  if (!parsed.success) {
    const [issue] = parsed.error.issues
    return refuse({
      path: issue?.path.map(String).join('.') ?? '',
      problem: issue?.message ?? '',
    })
  }
  const bare = parsed.data.packages.findIndex(({ archives }) => !isNamed(archives))
  if (bare >= 0)
    return refuse({ path: `packages.${bare}.archives`, problem: 'a volume without its digest' })
  const { issued, expires, packages } = parsed.data
  if (expires < issued) return refuse({ path: 'expires', problem: 'before the day it was issued' })
  const twice = firstTwice(packages)
  if (twice !== undefined)
    return refuse({ path: `packages.${twice}`, problem: 'a package that stands there twice' })
  return ok(parsed.data)
}

/** The place of the first package that stands in a list before; undefined: each is there once. */
function firstTwice(packages: readonly Manifest[]): number | undefined {
  const seen = new Set<string>()
  const at = packages.findIndex(({ id, archives }) => {
    const key = `${id} ${archives[0]?.sha256 ?? ''}`
    const before = seen.has(key)
    seen.add(key)
    return before
  })
  return at < 0 ? undefined : at
}

function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}

const isNamed = (archives: Manifest['archives']): boolean =>
  archives.length > 0 && archives.every(({ sha256 }) => sha256 !== undefined)

export type UnsignedCatalogue = Omit<DepotCatalogue, 'signature'>

/** What a depot signs: all of a catalogue but its signature. */
export function signedText(catalogue: UnsignedCatalogue): string {
  const { signature: _, ...rest } = catalogue as Partial<DepotCatalogue>
  return canonical(rest as unknown as Json)
}
