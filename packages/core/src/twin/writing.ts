/**
 * Bytes on the twin: pieces begun, sent and finished, digests and looks, where its mode takes them. Reads
 * a device and a request; gives the device after it and what it says.
 */
import { takesIn } from '../family/modes.ts'
import { BLOCK_BYTES, holds } from './blocks.ts'
import type { DeviceModel } from './state.ts'
import { imageOn } from './state.ts'
import type { Nature, Stepped, TwinInput } from './stepped.ts'
import { done, refuse, told } from './stepped.ts'
import { withPart, writtenTo } from './written.ts'

/** A mode that writes takes only what is signed, fits, is not below the floor, and may be written at all. */
export function begin(
  { family, catalogue }: Nature,
  device: DeviceModel,
  input: Extract<TwinInput, { kind: 'begin' }>,
): Stepped {
  if (!takesIn(family, device.mode, 'write')) return refuse(device, 'wrong-mode')
  const part = device.parts[input.partition]
  const image = catalogue.get(input.image)
  if (part === undefined) return refuse(device, 'no-partition')
  if (!takesIn(family, device.mode, 'write', part.role)) return refuse(device, 'wrong-mode')
  if (family.never.includes(part.role)) return refuse(device, 'never-written')
  if (image === undefined || image.role !== part.role) return refuse(device, 'not-signed')
  if (image.builds.every(({ generation }) => generation < device.floor))
    return refuse(device, 'floor')
  if (input.offset + input.size > part.blocks * BLOCK_BYTES) return refuse(device, 'too-large')
  const { partition, offset, size } = input
  const same = device.session
  const resumes =
    same?.partition === partition && same.offset === offset && same.image === input.image
  const session = resumes ? same : { partition, offset, size, image: input.image, got: 0 }
  return told({ ...device, session }, { kind: 'kept', got: session.got })
}

export function chunk(
  nature: Nature,
  device: DeviceModel,
  input: Extract<TwinInput, { kind: 'chunk' }>,
): Stepped {
  const { session } = device
  if (session === undefined) return refuse(device, 'no-session')
  if (input.offset !== session.got || input.offset + input.size > session.size)
    return refuse(device, 'bad-offset')
  const part = device.parts[session.partition]
  if (part === undefined) return refuse(device, 'no-partition')
  const got = session.got + input.size
  const kept = { ...device, session: { ...session, got } }
  const written = withPart(kept, session.partition, writtenTo(part, session, got))
  const operation = {
    kind: 'write',
    partition: session.partition,
    role: part.role,
    bytes: input.size * nature.scale,
  } as const
  return done(nature, written, operation, { kind: 'kept', got })
}

export function finish(device: DeviceModel): Stepped {
  const { session } = device
  if (session === undefined) return refuse(device, 'no-session')
  if (session.got < session.size) return refuse(device, 'bad-offset')
  return told({ ...device, session: undefined }, { kind: 'kept', got: session.size })
}

export function digest(
  nature: Nature,
  device: DeviceModel,
  input: Extract<TwinInput, { kind: 'digest' }>,
): Stepped {
  const part = device.parts[input.partition]
  if (!takesIn(nature.family, device.mode, 'digest', part?.role))
    return refuse(device, 'wrong-mode')
  if (part === undefined) return refuse(device, 'no-partition')
  const on = imageOn(part, nature.catalogue)
  const whole = on !== undefined && on.blocks * BLOCK_BYTES === input.size
  const output = { kind: 'digest', image: whole ? on.image : undefined } as const
  return done(nature, device, { kind: 'digest', bytes: input.size * nature.scale }, output)
}

export function look(
  nature: Nature,
  device: DeviceModel,
  { partition, offset, size, image }: Extract<TwinInput, { kind: 'look' }>,
): Stepped {
  const part = device.parts[partition]
  if (!takesIn(nature.family, device.mode, 'digest', part?.role))
    return refuse(device, 'wrong-mode')
  if (part === undefined) return refuse(device, 'no-partition')
  const [from, to] = [offset / BLOCK_BYTES, Math.ceil((offset + size) / BLOCK_BYTES)]
  const whole = holds(part.map, image, from, to, part.was)
  const output = { kind: 'digest', image: whole ? image : undefined } as const
  return done(nature, device, { kind: 'digest', bytes: size * nature.scale }, output)
}
