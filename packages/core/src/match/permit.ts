/**
 * The permit that was brought for a device: a signed file of its maker's, or what a lead says of one. Reads the line
 * under which it was put down and the files that were taken in; gives the permit.
 */
import type { Manifest } from '../firmware/manifest.ts'
import type { Line } from '../terms/line.ts'
import type { Permit } from '../wire/permit.ts'
import { permitSchema } from '../wire/permit.ts'

/** What a signed file says beyond what its device is given, and by which key of the trust store it was signed. */
export type PermitProof = {
  readonly maker: string
  readonly key: string
  readonly from: string
  readonly packages: readonly string[]
}

/** A permit that was put down; without `signed` it is somebody's word, of the day `said`. */
export type BroughtPermit = Permit & {
  readonly signed?: PermitProof | undefined
  readonly said?: string | undefined
}

/** The topic under which a permit is put down. */
export const PERMIT_TOPIC = 'permit.service'

/** What service software asks for, where its package names no kind. */
const SERVICE = 'service'

/** The kind of permit that a package asks for; undefined: it goes on without one. */
export const permitKindOf = ({
  kind,
  requires: { permitKind },
}: Pick<Manifest, 'kind' | 'requires'>): string | undefined =>
  permitKind ?? (kind === 'service' ? SERVICE : undefined)

/** A permit as its line says it, with blanks between; `file` is the digest of the file that says more. */
export const permitText = (
  { id, device, scope, until }: Permit,
  file?: string | undefined,
): string => [id, device, until, scope, ...(file === undefined ? [] : [file])].join(' ')

/** A permit as it is typed or as its line says it; undefined where it cannot be read. Service is what is meant unless said. */
export function permitOf(text: string): Permit | undefined {
  const [id, device, until, scope = SERVICE] = text.trim().split(/\s+/)
  const parsed = permitSchema.safeParse({ id, device, until, scope })
  return parsed.success ? parsed.data : undefined
}

/** The digest of the file that a line rests on; undefined: it is somebody's word. */
export const permitFileOf = (text: string): string | undefined => text.trim().split(/\s+/)[4]

/**
 * The permit that was brought; undefined: none, or its file is not kept here. Of a file nothing but the file itself speaks,
 * whatever its line says beside its digest.
 */
export function permitIn(
  lines: ReadonlyMap<string, Line>,
  files: ReadonlyMap<string, BroughtPermit> = new Map(),
): BroughtPermit | undefined {
  const line = lines.get(PERMIT_TOPIC)
  const permit = permitOf(line?.answer ?? '')
  if (line === undefined || permit === undefined) return undefined
  const file = permitFileOf(line.answer)
  if (file === undefined) return { ...permit, said: new Date(line.at).toISOString().slice(0, 10) }
  return files.get(file)
}
