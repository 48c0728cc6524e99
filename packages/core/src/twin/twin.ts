/**
 * The twin: a device that answers. Reads its state, one input and the time; gives the new state, what it
 * says, and when it will have done. It executes the very commands an agent sends to a device, by the
 * effects and rules its family declares, and draws nothing from chance: `pick` between 0 and 1 says
 * where in a family's ranges this device lies.
 */
import { answersIn, modeProfile, takesIn } from '../family/modes.ts'
import type { DeviceFacts } from '../wire/facts.ts'
import { keys, restart } from './boot.ts'
import type { DeviceModel } from './state.ts'
import { buildOn } from './state.ts'
import type { Nature, Stepped, TwinInput } from './stepped.ts'
import { LOOKING, done, drained, isMute, refuse, runs, switchedOff, told } from './stepped.ts'
import { begin, chunk, digest, finish, look } from './writing.ts'

/** Executes one input at a time not before the device's own. */
export function step(nature: Nature, device: DeviceModel, input: TwinInput, at: number): Stepped {
  const now = idle(nature, device, at)
  const looks = input.kind === 'hello' && input.epoch === LOOKING
  if ('epoch' in input && !looks && input.epoch < now.epoch) return refuse(now, 'old-epoch')
  const met = 'epoch' in input && !looks ? { ...now, epoch: input.epoch } : now
  switch (input.kind) {
    case 'hello':
    case 'facts':
      if (isMute(nature.family, met)) return { device: met, output: { kind: 'silent' }, doneAt: at }
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
      return switchedOff(nature, met)
    case 'charge':
      return told({ ...met, battery: input.percent }, { kind: 'silent' })
    case 'permit':
      return told(runs(nature.family, met) ? { ...met, permission: input.given } : met, {
        kind: 'silent',
      })
  }
}

/** Time that passed with nothing to do: a mode that answers and does not charge drains. */
function idle({ family }: Nature, device: DeviceModel, at: number): DeviceModel {
  const minutes = Math.max(0, at - device.at) / 60_000
  const charges = modeProfile(family, device.mode)?.charges === true
  const idles = answersIn(family, device.mode) && !charges
  const drains = idles ? family.drainPerMinute.idle * minutes : 0
  return drained(family, { ...device, at: Math.max(at, device.at) }, drains)
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

/** The customer's things, counted by a mode that knows of them: the system while it runs. */
function tally(nature: Nature, device: DeviceModel): Stepped {
  if (isMute(nature.family, device)) return told(device, { kind: 'silent' })
  if (!takesIn(nature.family, device.mode, 'tally')) return refuse(device, 'wrong-mode')
  const { items, bytes, readable } = device.data
  return done(nature, device, { kind: 'ask' }, { kind: 'tally', items, bytes, opens: readable })
}
