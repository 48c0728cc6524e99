/**
 * A plan's steps as they are laid one after the other: each where the mode takes it, with the ways there.
 * Reads a family and where the device is; gives the steps so far and the mode at their end. `undefined`
 * where no way leads on.
 */
import { answersIn, takesIn } from '../family/modes.ts'
import type { Family, Way } from '../family/profile.ts'
import type { Image } from '../firmware/manifest.ts'
import type { HouseRules } from '../match/house.ts'
import { waysTo, waysToTaking } from '../modes/ways.ts'
import type { Mode, PartRole, Takes } from '../terms/device.ts'
import type { Ids, MeetLook, StepBody } from './step.ts'

const MIB = 1024 * 1024

export type Road = {
  readonly family: Family
  readonly ids: Ids
  readonly here: Mode
  /** How long hands are busy with each thing in this house. */
  readonly handSeconds: HouseRules['handSeconds']
  /** The house restarts after every part, and not only where the family asks for it. */
  readonly everyRestart: boolean
  /** Whether commands may be given to the running system. */
  readonly permission: boolean
  /** What is looked at as it is met. */
  readonly look: MeetLook
  /** It has been met in this plan, and its ids compared. */
  readonly met: boolean
  readonly steps: readonly StepBody[]
}

/** More steps at the end of a road. */
export const adding = (road: Road, ...steps: readonly StepBody[]): Road => ({
  ...road,
  steps: [...road.steps, ...steps],
})

/** On to the nearest mode that takes something for a role; met there for the first time, its ids are compared. */
export function to(road: Road, what: Takes, role?: PartRole): Road | undefined {
  const { family, here, permission } = road
  const wanted = role === undefined ? { what } : { what, role }
  const there = waysToTaking(family, here, wanted, permission)
  return there === undefined ? undefined : arrived(road, there.mode, there.ways)
}

/** On to a mode of this name; met there for the first time, its ids are compared. */
export function toMode(road: Road, mode: Mode): Road | undefined {
  const ways = waysTo(road.family, road.here, mode, road.permission)
  return ways === undefined ? undefined : arrived(road, mode, ways)
}

function arrived(road: Road, mode: Mode, ways: readonly Way[]): Road {
  const { family, ids, look } = road
  const there = { ...adding(road, ...ways.map((way) => enterStep(family, way))), here: mode }
  return road.met
    ? there
    : { ...adding(there, { kind: 'meet', mode, ids, look: lookIn(family, mode, look) }), met: true }
}

/** As much as the mode lets be looked at. */
const lookIn = (family: Family, mode: Mode, { table, left }: MeetLook): MeetLook => ({
  table: takesIn(family, mode, 'table') ? table : undefined,
  left: left.filter(({ image }) => takesIn(family, mode, 'digest', image.role)),
})

export const enterStep = (family: Family, way: Way): StepBody => ({
  kind: 'enter',
  way,
  answers: answersIn(family, way.to),
})

/** An image that is written, of which package, at which scale. */
export type Written = { readonly pack: string; readonly image: Image; readonly scale: number }

/** An image written: its pieces, its digest read back, the family's restart after it. */
export function written(road: Road, one: Written): Road | undefined {
  const { family } = road
  const there = to(road, 'write', one.image.role)
  if (there === undefined) return undefined
  const mode = there.here
  const pieces = piecesOf(one.image, (family.pieceMiB * MIB) / one.scale)
  /* A family that asks for none has no way to restart into the mode that writes. */
  const every = road.everyRestart && family.restartAfter.length > 0
  const restarts = every || family.restartAfter.includes(one.image.role)
  return adding(
    there,
    ...pieces.map(({ offset, size }, index): StepBody => ({
      kind: 'write',
      mode,
      ...one,
      piece: index + 1,
      pieces: pieces.length,
      offset,
      size,
    })),
    { kind: 'read-back', mode, ...one },
    ...(restarts ? [{ kind: 'restart', to: mode } as const] : []),
  )
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

/** Partitions erased, each in a mode that takes it; with the customer's goes the link permission, if the family says so. */
export function erased(
  road: Road,
  parts: readonly { readonly name: string; readonly role: PartRole }[],
): Road | undefined {
  return parts.reduce<Road | undefined>((so, { name, role }) => {
    const there = so === undefined ? undefined : to(so, 'erase', role)
    if (there === undefined) return undefined
    return adding(there, { kind: 'erase', mode: there.here, partition: name, role })
  }, road)
}
