/**
 * What bytes leave on a partition: as they come, and when a cut ends them. Reads a device with an open
 * piece; gives the device after it.
 */
import { modeOfKind } from '../family/modes.ts'
import type { Family } from '../family/profile.ts'
import { BLOCK_BYTES, lay } from './blocks.ts'
import type { DeviceModel, Part, Session } from './state.ts'

/**
 * Every block that is whole by now holds the image; the one under way is not counted yet, unless the
 * piece ends in it.
 */
export function writtenTo(part: Part, session: Session, got: number): Part {
  const { offset, size, image } = session
  const from = offset / BLOCK_BYTES
  const reached = (offset + got) / BLOCK_BYTES
  const to = got === size ? Math.ceil(reached) : Math.floor(reached)
  return { ...part, map: lay(part.map, { from, to, kind: 'image', image, at: from }) }
}

/** The device with another part in a place. */
export const withPart = (device: DeviceModel, partition: string, part: Part): DeviceModel => ({
  ...device,
  parts: { ...device.parts, [partition]: part },
})

/** A part that was written to or erased: its slot is found good no more, and the next start is a first one. */
export const touched = (device: DeviceModel, { slot }: Part): DeviceModel => ({
  ...device,
  fresh: true,
  slots:
    device.slots === undefined
      ? undefined
      : { ...device.slots, good: device.slots.good.filter((one) => one !== slot) },
})

/** A cut while a chunk was on its way: `bytes` of the piece are kept by the device. */
export function cutAt(
  family: Family,
  device: DeviceModel,
  bytes: number,
  powerGone: boolean,
): DeviceModel {
  const off = modeOfKind(family, 'off')
  const { session } = device
  const part = session === undefined ? undefined : device.parts[session.partition]
  if (session === undefined || part === undefined)
    return powerGone ? { ...device, mode: off, session: undefined } : device
  const written = writtenTo(part, session, bytes)
  const hurt = bytes > 0 ? touched(device, part) : device
  if (!powerGone)
    return { ...withPart(hurt, session.partition, written), session: { ...session, got: bytes } }
  const reached = session.offset + bytes
  const torn =
    reached % BLOCK_BYTES === 0 || bytes === session.size
      ? written
      : { ...written, map: lay(written.map, tornBlock(Math.floor(reached / BLOCK_BYTES))) }
  return { ...withPart(hurt, session.partition, torn), session: undefined, mode: off }
}

const tornBlock = (block: number) => ({ from: block, to: block + 1, kind: 'torn' }) as const
