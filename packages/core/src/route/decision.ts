/**
 * A decision with all that it was made with, so that it can be made again: readings, answers, house, family, shelf,
 * evidence, day and moves. What many decisions share (a family, a manifest) stands in it by its digest and is kept
 * once. Reads a state and the moves that were picked; gives canonical text, and, from such text, the plan again.
 * Whether it is the same is told by the digest of the plan.
 */
import type { Changed, Reading } from '../device/identity.ts'
import { identify } from '../device/identity.ts'
import { canonical } from '../canon/canon.ts'
import type { Json } from '../canon/canon.ts'
import type { Family } from '../family/profile.ts'
import type { Shelved } from '../firmware/manifest.ts'
import type { HexDigest } from '../plan/digest.ts'
import { digestOfJson } from '../plan/digest.ts'
import type { Move } from '../plan/moves.ts'
import type { Plan } from '../plan/plan.ts'
import { planOf } from '../plan/plan.ts'
import type { DeviceState } from '../plan/state.ts'
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'
import type { PackedState } from './packed.ts'
import { packState, unpackState } from './packed.ts'

export type Decided = {
  readonly state: DeviceState
  readonly readings: readonly Reading[]
  /** When acts changed what was read before. */
  readonly changed: Changed
  readonly plan: Plan
}

/** Canonical texts by their SHA-256. */
export type Documents = ReadonlyMap<string, string>
export type Kept = { readonly decision: string; readonly documents: Documents }

const FORMAT = 'plain-slate/decision@1'
type Written = {
  readonly format: typeof FORMAT
  readonly family: string
  readonly shelf: readonly (Omit<Shelved, 'manifest'> & { readonly manifest: string })[]
  readonly state: Omit<PackedState, 'at'> & {
    readonly at: Omit<PackedState['at'], 'family' | 'identity' | 'shelf'>
  }
  readonly readings: readonly Reading[]
  readonly changed: Changed
  readonly moves: readonly Move[]
  readonly identity: string
  readonly plan: string
}

/** A decision to be kept: `decision` is the digest of its own text among the documents. */
export function keepDecision({ state, readings, changed, plan }: Decided, sha256: HexDigest): Kept {
  const documents = new Map<string, string>()
  const keep = (value: unknown): string => {
    const text = canonical(JSON.parse(JSON.stringify(value)) as Json)
    const digest = sha256(text)
    documents.set(digest, text)
    return digest
  }
  const { at, ...rest } = packState(state)
  const { family, identity, shelf, ...plain } = at
  const written: Written = {
    format: FORMAT,
    family: keep(family),
    shelf: shelf.map(({ manifest, ...one }) => ({ ...one, manifest: keep(manifest) })),
    state: { ...rest, at: plain },
    readings,
    changed,
    moves: plan.moves,
    identity: digestOfJson(identity, sha256),
    plan: digestOfJson(plan, sha256),
  }
  return { decision: keep(written), documents }
}

export type Again = {
  /** Digests of the plan as it was decided, and as it is made of the same today; null: none can be made. */
  readonly was: string
  readonly now: string | null
  readonly same: boolean
  readonly family: { readonly id: string; readonly version: number }
  readonly packages: number
  readonly readings: number
}

/** Makes a kept decision again; refused where a document of it is missing. Throws on a text that is no decision. */
export function decideAgain(
  decision: string,
  documents: Documents,
  sha256: HexDigest,
): Result<Again, { readonly kind: 'missing'; readonly digest: string }> {
  const written = documentIn(documents, decision) as Written | undefined
  if (written === undefined) return refuse({ kind: 'missing', digest: decision })
  const wanted = namedIn(written)
  const missing = wanted.find((digest) => !documents.has(digest))
  if (missing !== undefined) return refuse({ kind: 'missing', digest: missing })
  const { state, readings, changed, moves, plan: was } = written
  const family = documentIn(documents, written.family) as Family
  const identity = identify(family, readings, changed)
  const start = unpackState({
    ...state,
    at: {
      ...state.at,
      family,
      identity,
      shelf: written.shelf.map((one) => ({
        ...one,
        manifest: documentIn(documents, one.manifest) as Shelved['manifest'],
      })),
    },
  })
  const made = planOf(start, moves)
  const now = made.ok ? digestOfJson(made.value, sha256) : null
  const isKnown = digestOfJson(identity, sha256) === written.identity
  return ok({
    was,
    now,
    same: now === was && isKnown,
    family: { id: family.id, version: family.version },
    packages: written.shelf.length,
    readings: readings.length,
  })
}

/** Digests of what a decision's text names, without repeats. */
export function documentsOf(text: string): readonly string[] {
  return namedIn(JSON.parse(text) as Written)
}

const namedIn = ({ family, shelf }: Written): readonly string[] => [
  ...new Set([family, ...shelf.map(({ manifest }) => manifest)]),
]

const documentIn = (documents: Documents, digest: string): unknown => {
  const text = documents.get(digest)
  return text === undefined ? undefined : (JSON.parse(text) as unknown)
}
