/**
 * A plan for one package, with one part package before it where that lifts the one unmet condition.
 * Reads a judged case and the mode the device is in; gives the steps in the family's order: ready
 * checks, into the writing mode, writes in pieces with the family's restarts, read-back, first start, facts.
 * What was prepared is undone at Hand back, after the last look over the link. Leaves out search over
 * several packages.
 */
import { settled } from '../device/identity.ts'
import type { ImageDecision } from '../difference/least-write.ts'
import { leastWrite } from '../difference/least-write.ts'
import { answersIn, modeOfKind } from '../family/modes.ts'
import type { Family, Way } from '../family/profile.ts'
import type { Image, Manifest } from '../firmware/manifest.ts'
import type { Case } from '../match/rule.ts'
import { judge } from '../match/judge.ts'
import { raising } from '../match/rules/loader.ts'
import { fateOf } from '../match/rules/data-fate.ts'
import { waysToTaking } from '../modes/ways.ts'
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'
import type { Mode } from '../terms/device.ts'
import type { Finding } from '../verdict/verdict.ts'
import { isTakeable } from '../verdict/verdict.ts'
import type { Expected, Step, StepBody } from './step.ts'

const MIB = 1024 * 1024
/** How long hands are busy with each preparation, in seconds; the house's own figures come later. */
const READY_SECONDS = { charge: 30, backup: 240, permission: 60, cable: 30 } as const

export type PlanAsk = {
  readonly at: Case
  readonly mode: Mode
  readonly permission: boolean
}

export type PlannedPackage = {
  readonly key: string
  readonly manifest: Manifest
  readonly decisions: readonly ImageDecision[]
}

export type Plan = {
  readonly family: string
  readonly serial: string
  readonly packages: readonly PlannedPackage[]
  readonly steps: readonly Step[]
  readonly expected: Expected
  /** Things of the customer's that it cannot promise anything of: the family has no place for them. */
  readonly placeless: readonly string[]
  /** The package with which the device can go back to what it was, if the shelf holds it. */
  readonly wayBack: string | undefined
}

export type NoPlan =
  | {
      readonly kind: 'not-takeable'
      readonly rule: string
      readonly code: string
      readonly facts: Finding['facts']
    }
  | { readonly kind: 'no-way'; readonly from: Mode }
  | { readonly kind: 'nothing-to-write' }
  | { readonly kind: 'unread'; readonly fact: 'serial' }

/** Makes the plan, or says why there is none. */
export function makePlan({ at, mode, permission }: PlanAsk): Result<Plan, NoPlan> {
  const judgement = judge(at)
  const [gravest] = judgement.findings
  if (!isTakeable(judgement.verdict))
    return refuse({
      kind: 'not-takeable',
      rule: gravest?.rule ?? '',
      code: gravest?.code ?? '',
      facts: gravest?.facts ?? {},
    })
  const serial = settled(at.identity, 'serial')
  if (serial === undefined) return refuse({ kind: 'unread', fact: 'serial' })
  const packages = packagesOf(at)
  const written = packages.flatMap((one) => imagesOf(one))
  if (written.length === 0) return refuse({ kind: 'nothing-to-write' })
  const system = modeOfKind(at.family, 'system')
  const writing = writingFrom(at.family, mode, written, permission)
  if (writing === undefined) return refuse({ kind: 'no-way', from: mode })
  const expected = expectedOf(at, packages)
  const wiped = fateOf(factsOf(at), at) === 'wiped'
  const bodies: readonly StepBody[] = [
    /* A device that cannot be asked for it now is not asked for it. */
    ...readySteps(
      at,
      writing.some((one) => one.kind === 'enter' && one.way.needs === 'permission'),
    ),
    ...writing,
    { kind: 'first-start', to: system, wiped },
    { kind: 'prove', expect: expected },
  ]
  return ok({
    family: at.family.id,
    serial: String(serial),
    packages,
    steps: bodies.map((body, index) => ({ ...body, number: index + 1 })),
    expected,
    placeless: at.placeless,
    wayBack: wayBackOf(at),
  })
}

const factsOf = ({ identity }: Case) => ({
  release: settled(identity, 'release') ?? 0,
  patchDate: settled(identity, 'patchDate') ?? '',
})

/** The part that raises the loader, where it must be raised, and the package itself. */
function packagesOf(at: Case): readonly PlannedPackage[] {
  const least = at.shelved.manifest.requires.minLoader
  const here = Number(settled(at.identity, 'loaderVersion') ?? 0)
  const first = least !== undefined && here < least ? raising(at, least) : undefined
  return [first, at.shelved].flatMap((shelved) =>
    shelved === undefined
      ? []
      : [
          {
            key: shelved.key,
            manifest: shelved.manifest,
            decisions: leastWrite(at.family, shelved.manifest, at.evidence),
          },
        ],
  )
}

function readySteps(at: Case, permission: boolean): readonly StepBody[] {
  const ready = (what: keyof typeof READY_SECONDS) =>
    ({ kind: 'ready', what, seconds: READY_SECONDS[what] }) as const
  return [
    ...(at.keepData ? [ready('backup')] : []),
    ready('charge'),
    ready('cable'),
    ...(permission ? [ready('permission')] : []),
  ]
}

/** An image that is written, of which package, at which scale. */
type Written = { readonly pack: string; readonly image: Image; readonly scale: number }

const imagesOf = ({ key: pack, manifest, decisions }: PlannedPackage): readonly Written[] =>
  decisions
    .filter(({ write }) => write)
    .map(({ image }) => ({ pack, image, scale: manifest.scale }))

/**
 * The writes in their order, each in the nearest mode that takes it, with the ways there. It is met for
 * the first time where the first write is done. Undefined: some image can be written in no mode that a way
 * leads to.
 */
function writingFrom(
  family: Family,
  from: Mode,
  images: readonly Written[],
  permission: boolean,
): readonly StepBody[] | undefined {
  let here = from
  const steps: StepBody[] = []
  for (const [index, one] of images.entries()) {
    const wanted = { what: 'write', role: one.image.role } as const
    const there = waysToTaking(family, here, wanted, permission)
    if (there === undefined) return undefined
    here = there.mode
    steps.push(...there.ways.map((way) => enterStep(family, way)))
    if (index === 0) steps.push({ kind: 'meet', mode: here })
    steps.push(...writeSteps(family, here, one))
  }
  return steps
}

const enterStep = (family: Family, way: Way): StepBody => ({
  kind: 'enter',
  way,
  answers: answersIn(family, way.to),
})

/** Pieces, read-back and the family's restarts of an image. */
function writeSteps(family: Family, mode: Mode, written: Written): readonly StepBody[] {
  const { image, scale } = written
  const pieces = piecesOf(image, (family.pieceMiB * MIB) / scale)
  return [
    ...pieces.map(({ offset, size }, index): StepBody => ({
      kind: 'write',
      mode,
      ...written,
      piece: index + 1,
      pieces: pieces.length,
      offset,
      size,
    })),
    { kind: 'read-back', mode, ...written },
    ...(family.restartAfter.includes(image.role) ? [{ kind: 'restart', to: mode } as const] : []),
  ]
}

function piecesOf(
  image: Image,
  pieceBytes: number,
): readonly { readonly offset: number; readonly size: number }[] {
  return Array.from({ length: Math.ceil(image.size / pieceBytes) }, (_, index) => {
    const offset = index * pieceBytes
    return { offset, size: Math.min(pieceBytes, image.size - offset) }
  })
}

function expectedOf(at: Case, packages: readonly PlannedPackage[]): Expected {
  const { build, release, generation } = at.shelved.manifest
  const raised = packages.map(({ manifest }) => manifest.loaderVersion ?? 0)
  const loaderVersion = Math.max(Number(settled(at.identity, 'loaderVersion') ?? 0), ...raised)
  const floor = Math.max(Number(settled(at.identity, 'floor') ?? 0), generation)
  return { build, release, loaderVersion, floor }
}

/** A proven full package of the build it has now; how long it stays a way back is folded. */
function wayBackOf(at: Case): string | undefined {
  const build = settled(at.identity, 'build')
  return at.shelf.find(
    ({ manifest, state }) =>
      manifest.kind === 'full' && manifest.build === build && state === 'published',
  )?.key
}
