/**
 * The twin: a device that answers. Reads its state, one input and the time; gives the new state, what it
 * says, and when it will have done. It executes the very commands an agent sends to a device, by the
 * effects and rules its family declares, and draws nothing from chance: `pick` between 0 and 1 says
 * where in a family's ranges this device lies.
 */
import { effectOf } from '../effect/effect.ts'
import type { Family } from '../family/profile.ts'
import { paceOf } from '../pace/pace.ts'
import type { Mode } from '../terms/device.ts'
import type { DeviceFacts } from '../wire/facts.ts'
import type { DeviceRefusal } from '../wire/verbs.ts'
import { BLOCK_BYTES, holds, isUntouched } from './blocks.ts'
import { withPart, writtenTo } from './written.ts'
import type { Catalogue, DeviceModel } from './state.ts'
import { buildOn, imageOn, loaderIsWhole, startOutcome } from './state.ts'

/** What this device is besides its state: its family, its images' facts, its scale and its pace. */
export type Nature = {
  readonly family: Family
  readonly catalogue: Catalogue
  readonly scale: number
  readonly pick: number
}

export type TwinInput =
  | { readonly kind: 'hello'; readonly epoch: number }
  | {
      readonly kind: 'begin'
      readonly epoch: number
      readonly partition: string
      readonly offset: number
      readonly size: number
      readonly image: string
    }
  | {
      readonly kind: 'chunk'
      readonly epoch: number
      readonly offset: number
      readonly size: number
    }
  | { readonly kind: 'finish'; readonly epoch: number }
  | { readonly kind: 'digest'; readonly partition: string; readonly size: number }
  /** Whether a piece's range already holds the image's blocks. */
  | {
      readonly kind: 'look'
      readonly partition: string
      readonly offset: number
      readonly size: number
      readonly image: string
    }
  | { readonly kind: 'facts' }
  | { readonly kind: 'tally' }
  | { readonly kind: 'restart'; readonly epoch: number; readonly to: Mode }
  /** Hands: the keys of a chord, the cell taken out, the charger. */
  | { readonly kind: 'keys'; readonly to: Mode }
  | { readonly kind: 'power-off' }
  | { readonly kind: 'charge'; readonly percent: number }
  /** The link permission, given or withdrawn in the settings of a device that runs. */
  | { readonly kind: 'permit'; readonly given: boolean }

export type TwinOutput =
  | { readonly kind: 'facts'; readonly facts: DeviceFacts }
  | { readonly kind: 'kept'; readonly got: number }
  | { readonly kind: 'digest'; readonly image: string | undefined }
  | { readonly kind: 'mode'; readonly mode: Mode }
  | {
      readonly kind: 'tally'
      readonly items: number
      readonly bytes: number
      readonly opens: boolean
    }
  | { readonly kind: 'refused'; readonly code: DeviceRefusal }
  | { readonly kind: 'silent' }

export type Stepped = {
  readonly device: DeviceModel
  readonly output: TwinOutput
  /** When the device has done it, ms of model time. */
  readonly doneAt: number
}

/** The epoch of a meeting that only reads: it owns nothing, and no newer owner is in its way. */
export const LOOKING = 0

/** Executes one input at a time not before the device's own. */
export function step(nature: Nature, device: DeviceModel, input: TwinInput, at: number): Stepped {
  const now = idle(nature, device, at)
  const looks = input.kind === 'hello' && input.epoch === LOOKING
  if ('epoch' in input && !looks && input.epoch < now.epoch) return refuse(now, 'old-epoch')
  const met = 'epoch' in input && !looks ? { ...now, epoch: input.epoch } : now
  switch (input.kind) {
    case 'hello':
    case 'facts':
      if (isMute(met)) return { device: met, output: { kind: 'silent' }, doneAt: at }
      return looks
        ? told(met, { kind: 'facts', facts: factsOf(nature, met) })
        : done(nature, met, { kind: 'ask' }, { kind: 'facts', facts: factsOf(nature, met) })
    case 'tally':
      return tally(nature, met)
    case 'begin':
      return begin(nature, met, input)
    case 'chunk':
      return chunk(nature, met, input)
    case 'finish':
      return finish(met)
    case 'digest':
      return digest(nature, met, input)
    case 'look':
      return look(nature, met, input)
    case 'restart':
      return restart(nature, met, input.to)
    case 'keys':
      return keys(nature, met, input.to)
    case 'power-off':
      return told({ ...met, mode: 'off', session: undefined }, { kind: 'mode', mode: 'off' })
    case 'charge':
      return told({ ...met, battery: input.percent }, { kind: 'silent' })
    case 'permit':
      return told(met.mode === 'normal' ? { ...met, permission: input.given } : met, {
        kind: 'silent',
      })
  }
}

/** Off, or running with its link permission withdrawn: it answers nothing. */
export const isMute = ({ mode, permission }: DeviceModel): boolean =>
  mode === 'off' || (mode === 'normal' && !permission)

const told = (device: DeviceModel, output: TwinOutput): Stepped => ({
  device,
  output,
  doneAt: device.at,
})
const refuse = (device: DeviceModel, code: DeviceRefusal): Stepped =>
  told(device, { kind: 'refused', code })

/** Time that passed with nothing to do: the loader drains, a charging mode does not. */
function idle({ family }: Nature, device: DeviceModel, at: number): DeviceModel {
  const minutes = Math.max(0, at - device.at) / 60_000
  const drains = device.mode === 'loader' ? family.drainPerMinute['loader-idle'] * minutes : 0
  return drained({ ...device, at: Math.max(at, device.at) }, drains)
}

/** Charge taken off; an empty cell switches the device off and its session is gone. */
function drained(device: DeviceModel, percent: number): DeviceModel {
  const battery = Math.max(0, device.battery - percent)
  if (battery > 0) return { ...device, battery }
  return { ...device, battery: 0, mode: 'off', session: undefined }
}

/** An operation carried out: its time passes, its charge is drained. */
function done(
  { family, pick }: Nature,
  device: DeviceModel,
  operation: Parameters<typeof effectOf>[1],
  output: TwinOutput,
): Stepped {
  const effect = effectOf(family, operation)
  const { low, high } = paceOf(family, effect)
  const lasts = Math.round((low + (high - low) * pick) * 1000)
  const minutes = lasts / 60_000
  const drains = effect.drain === 'none' ? 0 : family.drainPerMinute[effect.drain] * minutes
  const after = drained({ ...device, at: device.at + lasts }, drains)
  return { device: after, output, doneAt: after.at }
}

/** What it says of itself when asked. */
export function factsOf({ family, catalogue, scale }: Nature, device: DeviceModel): DeviceFacts {
  const main = buildOn(family, device, catalogue)
  return {
    ...device.fused,
    serial: device.serial,
    mode: device.mode,
    ...(main === undefined
      ? {}
      : { build: main.build, release: main.release, patchDate: main.patchDate }),
    loaderVersion: device.loaderVersion,
    floor: device.floor,
    bootLock: device.lock,
    batteryPercent: Math.round(device.battery),
    outcome: device.outcome,
    returns: device.returns,
    scale,
  }
}

/** A loader takes only what is signed, fits, is not below the floor, and may be written at all. */
function begin(
  { family, catalogue }: Nature,
  device: DeviceModel,
  input: Extract<TwinInput, { kind: 'begin' }>,
): Stepped {
  if (device.mode !== 'loader') return refuse(device, 'wrong-mode')
  const part = device.parts[input.partition]
  const image = catalogue.get(input.image)
  if (part === undefined) return refuse(device, 'no-partition')
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

function chunk(
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

/** The customer's things, counted by the system while it runs; a loader knows nothing of them. */
function tally(nature: Nature, device: DeviceModel): Stepped {
  if (isMute(device)) return told(device, { kind: 'silent' })
  if (device.mode !== 'normal') return refuse(device, 'wrong-mode')
  const { items, bytes, readable } = device.data
  return done(nature, device, { kind: 'ask' }, { kind: 'tally', items, bytes, opens: readable })
}

function finish(device: DeviceModel): Stepped {
  const { session } = device
  if (session === undefined) return refuse(device, 'no-session')
  if (session.got < session.size) return refuse(device, 'bad-offset')
  return told({ ...device, session: undefined }, { kind: 'kept', got: session.size })
}

function digest(
  nature: Nature,
  device: DeviceModel,
  input: Extract<TwinInput, { kind: 'digest' }>,
): Stepped {
  if (device.mode !== 'loader') return refuse(device, 'wrong-mode')
  const part = device.parts[input.partition]
  if (part === undefined) return refuse(device, 'no-partition')
  const on = imageOn(part, nature.catalogue)
  const whole = on !== undefined && on.blocks * BLOCK_BYTES === input.size
  const output = { kind: 'digest', image: whole ? on.image : undefined } as const
  return done(nature, device, { kind: 'digest', bytes: input.size * nature.scale }, output)
}

function look(
  nature: Nature,
  device: DeviceModel,
  { partition, offset, size, image }: Extract<TwinInput, { kind: 'look' }>,
): Stepped {
  if (device.mode !== 'loader') return refuse(device, 'wrong-mode')
  const part = device.parts[partition]
  if (part === undefined) return refuse(device, 'no-partition')
  const [from, to] = [offset / BLOCK_BYTES, Math.ceil((offset + size) / BLOCK_BYTES)]
  const whole = holds(part.map, image, from, to, part.was)
  const output = { kind: 'digest', image: whole ? image : undefined } as const
  return done(nature, device, { kind: 'digest', bytes: size * nature.scale }, output)
}

function restart(nature: Nature, device: DeviceModel, to: Mode): Stepped {
  if (device.mode === 'off') return told(device, { kind: 'silent' })
  if (device.mode === 'normal' && !device.permission) return refuse(device, 'no-permission')
  return boot(nature, { ...device, session: undefined }, to)
}

function keys(nature: Nature, device: DeviceModel, to: Mode): Stepped {
  if (to === 'off')
    return told({ ...device, mode: 'off', session: undefined }, { kind: 'mode', mode: 'off' })
  return device.battery > 0
    ? boot(nature, { ...device, session: undefined }, to)
    : told(device, { kind: 'silent' })
}

/** Starting up: a torn loader never comes back, a start to the system follows the start rules. */
function boot(nature: Nature, device: DeviceModel, to: Mode): Stepped {
  if (!loaderIsWhole(device, nature.catalogue))
    return told({ ...device, mode: 'off', outcome: 'dead' }, { kind: 'silent' })
  const loader = Object.values(device.parts).find(({ role }) => role === 'loader')
  const image = loader === undefined ? undefined : imageOn(loader, nature.catalogue)
  const awake = { ...device, loaderVersion: image?.loaderVersion ?? device.loaderVersion }
  if (to !== 'normal')
    return done(nature, { ...awake, mode: to }, { kind: 'restart' }, { kind: 'mode', mode: to })
  return startSystem(nature, awake)
}

function startSystem(nature: Nature, device: DeviceModel): Stepped {
  const outcome = startOutcome(nature.family, device, nature.catalogue)
  const main = buildOn(nature.family, device, nature.catalogue)
  const runs = outcome === 'normal' || outcome === 'no-radio'
  if (!runs || main === undefined) {
    const looping = { ...device, outcome, mode: 'off' as const, returns: device.returns + 1 }
    return done(nature, looping, { kind: 'restart' }, { kind: 'silent' })
  }
  const back = main.release < device.data.release
  /* As long as nothing was written it starts as it always did: no first start, and no floor rises. */
  const first = Object.values(device.parts).some(({ map }) => !isUntouched(map))
  const started: DeviceModel = {
    ...device,
    outcome,
    returns: 0,
    mode: 'normal',
    floor:
      first && nature.family.floors.rises === 'first-start'
        ? Math.max(device.floor, main.generation)
        : device.floor,
    data: {
      ...device.data,
      release: main.release,
      readable: device.data.readable && !back,
    },
  }
  const operation = first
    ? ({ kind: 'first-start', wiped: false } as const)
    : ({ kind: 'restart' } as const)
  return done(nature, started, operation, { kind: 'mode', mode: 'normal' })
}
