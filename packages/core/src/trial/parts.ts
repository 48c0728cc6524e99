/**
 * Every partition of a family's devices written once on the twin, in the mode that takes it. Reads a profile; gives for each
 * partition the mode and the time, or why no mode writes it.
 */
import { isNeverWritten } from '../family/never.ts'
import { takesIn } from '../family/modes.ts'
import type { Family } from '../family/profile.ts'
import type { Mode, PartRole } from '../terms/device.ts'
import { BLOCK_BYTES } from '../twin/blocks.ts'
import { withErased } from '../twin/applied.ts'
import { imageOn } from '../twin/parts.ts'
import type { DeviceModel } from '../twin/state.ts'
import type { Nature, TwinInput } from '../twin/stepped.ts'
import { step } from '../twin/twin.ts'
import type { Tried } from './device.ts'
import { imageName } from './device.ts'
import { reachedBy } from './modes.ts'

/**
 * *link*: over the cable; *open*: over the cable, only while its lock is open; *install*: a package that the device
 * installs; *never*: left alone; *erased*: nothing writes it, but it is erased; *none*: nothing does anything to it.
 */
export const WRITTEN = ['link', 'open', 'install', 'never', 'erased', 'none'] as const

export type PartTried = {
  readonly partition: string
  readonly role: PartRole
  readonly written: (typeof WRITTEN)[number]
  /** The mode that took it, with seconds from the first byte to the last on a device in the middle of the family's ranges. */
  readonly mode: Mode | null
  readonly seconds: number | null
}

/** Each partition of the device, in its order. */
export function partsTried(family: Family, one: Tried): readonly PartTried[] {
  const closed = reachedBy(family, one, true)
  const opens = family.lock.opens === 'command'
  const open = { ...one, device: { ...one.device, lock: 'open' as const } }
  const opened = opens ? reachedBy(family, open, true) : new Map()
  return Object.entries(one.device.parts).map(([partition, { role }]) => {
    const nobody = { partition, role, mode: null, seconds: null }
    if (isNeverWritten(family, role)) return { ...nobody, written: 'never' }
    for (const [written, modes] of [['link', closed] as const, ['open', opened] as const])
      for (const { device } of modes.values()) {
        const seconds = secondsOf(one.nature, device, partition)
        if (seconds !== undefined) return { ...nobody, written, mode: device.mode, seconds }
      }
    return { ...nobody, written: otherwise(family, role) }
  })
}

/** A part that no mode writes over the link: what becomes of it nevertheless. */
function otherwise(family: Family, role: PartRole): PartTried['written'] {
  if (family.installs.length > 0 && family.writeOrder.includes(role)) return 'install'
  const erased =
    family.wipe.includes(role) || family.modes.some(({ id }) => takesIn(family, id, 'erase', role))
  return erased ? 'erased' : 'none'
}

/** Erased, then written as one piece and finished: the seconds it took, where the image stands there whole after. */
function secondsOf(nature: Nature, device: DeviceModel, partition: string): number | undefined {
  const part = device.parts[partition]
  if (part === undefined) return undefined
  const image = imageName(part.role)
  const size = Math.min(part.blocks, nature.catalogue.get(image)?.blocks ?? 0) * BLOCK_BYTES
  const acts: readonly TwinInput[] = [
    { kind: 'begin', epoch: 1, partition, offset: 0, size, image },
    { kind: 'chunk', epoch: 1, offset: 0, size },
    { kind: 'finish', epoch: 1 },
  ]
  const begun = { ...withErased(device, partition), battery: FULL }
  let now = begun
  for (const act of acts) {
    const stepped = step(nature, now, act, now.at)
    if (stepped.output.kind === 'refused' || stepped.output.kind === 'silent') return undefined
    now = stepped.device
  }
  const there = now.parts[partition]
  const whole = there !== undefined && imageOn(there, nature.catalogue)?.image === image
  return whole ? (now.at - begun.at) / 1000 : undefined
}

const FULL = 100
