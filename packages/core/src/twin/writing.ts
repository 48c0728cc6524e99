/**
 * Bytes on the twin: pieces begun, sent and finished, digests and looks, where its mode takes them. Reads
 * a device and a request; gives the device after it and what it says.
 */
import { takesIn } from '../family/modes.ts'
import { isNeverWritten } from '../family/never.ts'
import type { Family } from '../family/profile.ts'
import type { PartRole } from '../terms/device.ts'
import { BLOCK_BYTES, holds } from './blocks.ts'
import { raised } from './applied.ts'
import type { ImageFacts } from './images.ts'
import type { DeviceModel } from './state.ts'
import { imageOn } from './parts.ts'
import { isService } from './permitting.ts'
import { floorFor } from './start.ts'
import type { Nature, Stepped, TwinInput } from './stepped.ts'
import { done, refuse, told } from './stepped.ts'
import { touched, withPart, writtenTo } from './written.ts'

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
  if (isNeverWritten(family, part.role)) return refuse(device, 'never-written')
  if (image === undefined || image.role !== part.role) return refuse(device, 'not-signed')
  if (device.lock === 'closed' && family.lock.keeps?.includes(part.role) === true)
    return refuse(device, 'not-allowed')
  if (image.modified && device.lock === 'closed') return refuse(device, 'not-signed')
  if (isService(image) && device.permit === undefined) return refuse(device, 'no-permit')
  if (isRefusedBelow(family, part.role) && isBelow(image, floorFor(device.floors, part.role)))
    return refuse(device, 'floor')
  if (input.offset + input.size > part.blocks * BLOCK_BYTES) return refuse(device, 'too-large')
  const { partition, offset, size } = input
  const same = device.session
  const resumes =
    same?.partition === partition && same.offset === offset && same.image === input.image
  const session = resumes ? same : { partition, offset, size, image: input.image, got: 0 }
  const merging = device.merge === 'merging' && family.merge?.destroyedBy.includes('write') === true
  const data = merging ? ({ ...device.data, form: 'unreadable' } as const) : device.data
  const key = family.goOn === undefined ? device.key : 'due'
  return told({ ...device, session, data, key }, { kind: 'kept', got: session.got })
}

/** Whether a part below its floor is refused as it is written, and not only when it is started. */
const isRefusedBelow = ({ floors }: Family, role: PartRole): boolean =>
  floors.rules.some(
    ({ roles, refused }) => refused === 'write' && (roles === 'any' || roles.includes(role)),
  )

const isBelow = ({ builds }: ImageFacts, floor: number): boolean =>
  builds.every(({ generation }) => generation < floor)

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
  const kept = touched({ ...device, session: { ...session, got } }, part)
  const written = withPart(kept, session.partition, writtenTo(part, session, got))
  const operation = {
    kind: 'write',
    partition: session.partition,
    role: part.role,
    bytes: input.size * nature.scale,
  } as const
  return done(nature, written, operation, { kind: 'kept', got })
}

/** A piece that is all there; a floor that rises at the write rises as the part is whole. */
export function finish({ family, catalogue }: Nature, device: DeviceModel): Stepped {
  const { session } = device
  if (session === undefined) return refuse(device, 'no-session')
  if (session.got < session.size) return refuse(device, 'bad-offset')
  const role = device.parts[session.partition]?.role
  const floors = raised(family, device, catalogue, 'write', role)
  return told({ ...device, session: undefined, floors }, { kind: 'kept', got: session.size })
}

export function digest(
  nature: Nature,
  device: DeviceModel,
  input: Extract<TwinInput, { kind: 'digest' | 'blocks' | 'read' }>,
): Stepped {
  const part = device.parts[input.partition]
  if (!takesIn(nature.family, device.mode, input.kind, part?.role))
    return refuse(device, 'wrong-mode')
  if (part === undefined) return refuse(device, 'no-partition')
  if (input.size > part.blocks * BLOCK_BYTES) return refuse(device, 'too-large')
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
