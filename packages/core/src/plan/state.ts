/**
 * Where a device stands, before a move and after it: the case without a package, the mode it is in, whether commands
 * may be given to its system. Reads what a move wrote and promises; gives where it stands then. What a move makes of
 * the state is declared here, of package and family alone: the twin, told the move's steps, comes to the same.
 */
import type { FactValue, Identity } from '../device/identity.ts'
import { settled } from '../device/identity.ts'
import type { Evidence, ImageDecision } from '../difference/least-write.ts'
import { modeOfKind } from '../family/modes.ts'
import type { Family } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Unheld } from '../match/rule.ts'
import type { Fact, Mode, Slot } from '../terms/device.ts'
import type { Aim } from './expected.ts'
import type { Expected } from './step.ts'

export type DeviceState = {
  readonly at: Unheld
  readonly mode: Mode
  readonly permission: boolean
  /**
   * What the last package was put on for, for what is done after it, and whether anything of it was written; undefined:
   * no move put anything on.
   */
  readonly onto?: (Aim & { readonly wrote: boolean }) | undefined
}

/** Facts of a device that moves change. */
export const MOVED_FACTS = [
  'build',
  'release',
  'patchDate',
  'track',
  'loaderVersion',
  'radioVersion',
  'floor',
  'floorLoader',
  'floorModem',
  'floorMain',
  'bootLock',
  'slot',
  'merge',
] as const satisfies readonly Fact[]
export type MovedFact = (typeof MOVED_FACTS)[number]

/** What was put on, as far as it goes on, and how. */
export type PutOn = {
  readonly manifest: Manifest
  readonly decisions: readonly ImageDecision[]
  /** The device merges what it installed by itself. */
  readonly merges: boolean
  /** The slot that was written, of a family that has any. */
  readonly slot: Slot | undefined
  /** The customer's data are wiped as it goes on. */
  readonly wipes: boolean
}

/** Where it stands once packages were put on and started as promised. */
export function stateAfter(
  { at }: DeviceState,
  put: readonly PutOn[],
  { expect, aim }: { readonly expect: Expected; readonly aim: Aim },
): DeviceState {
  const wiped = at.data !== undefined || put.some(({ wipes }) => wipes)
  return {
    at: {
      ...at,
      ...(wiped ? { data: 'new' as const } : {}),
      identity: moved(at.identity, factsAfter(at, put, expect)),
      evidence: put.reduce((evidence, one) => evidenceAfter(at.family, evidence, one), at.evidence),
    },
    mode: modeOfKind(at.family, 'system'),
    permission: true,
    onto: { ...aim, wrote: put.some(({ decisions }) => decisions.some(({ write }) => write)) },
  }
}

type ByPart = ReadonlyMap<string, Evidence>

/** What stands on each partition then; an increment takes what it does not hold from the slot that runs. */
function evidenceAfter(
  family: Family,
  before: ByPart,
  { manifest, decisions, slot }: PutOn,
): ByPart {
  const after = new Map(before)
  for (const { image, write } of decisions)
    if (write) after.set(image.partition, digest(image.sha256))
  if (manifest.kind !== 'incremental' || slot === undefined) return after
  const taken = family.partitions.filter(
    (part) => part.slot === slot && !decisions.some(({ image }) => image.partition === part.name),
  )
  for (const { name, role } of taken) {
    const source = family.partitions.find(
      (part) => part.role === role && part.slot !== undefined && part.slot !== slot,
    )
    const found = before.get(source?.name ?? '')
    if (found === undefined) after.delete(name)
    else after.set(name, found)
  }
  return after
}

const digest = (sha256: string): Evidence => ({ kind: 'digest', sha256 })

type Facts = Readonly<Partial<Record<MovedFact, FactValue | undefined>>>

/** Facts as they are after; `undefined` of one: nobody can say. */
function factsAfter({ identity }: Unheld, put: readonly PutOn[], expect: Expected): Facts {
  const { limits: _, ...told } = expect
  const whole = put.findLast(({ manifest }) => manifest.kind !== 'part')?.manifest
  const radio = put.findLast(({ decisions }) =>
    decisions.some(({ write, image }) => write && image.role === 'modem'),
  )
  const merges = put.some((one) => one.merges)
  return {
    ...told,
    /* A slot that came without a loader of its own: nobody can say which one starts it. */
    loaderVersion: told.loaderVersion,
    ...(whole === undefined ? {} : { patchDate: whole.patchDate, track: whole.track }),
    ...(radio === undefined ? {} : { radioVersion: radio.manifest.radioVersion }),
    /* One that is under way already was ended before, where a write would have destroyed anything. */
    ...(merges && settled(identity, 'merge') !== undefined ? { merge: 'merging' } : {}),
  }
}

/** An identity in which some facts are other ones now; the same one where none is. */
export function moved(identity: Identity, facts: Facts): Identity {
  const changes = Object.entries(facts).filter(
    ([fact, value]) => value !== settled(identity, fact as Fact),
  )
  if (changes.length === 0) return identity
  return {
    ...identity,
    ...Object.fromEntries(
      changes.map(([fact, value]) => [
        fact,
        value === undefined
          ? { kind: 'missing' }
          : { kind: 'settled', value, claims: [], doubted: false },
      ]),
    ),
  }
}
