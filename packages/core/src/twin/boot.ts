/**
 * The twin starting: by a command, by keys; into a mode, or into its system by the family's start rules.
 * Reads a device and where it is to go; gives the device after it.
 */
import { answersIn, isKind, modeOfKind } from '../family/modes.ts'
import type { Mode } from '../terms/device.ts'
import { isUntouched } from './blocks.ts'
import type { DeviceModel } from './state.ts'
import { buildOn, imageOn, loaderIsWhole, startOutcome } from './state.ts'
import type { Nature, Stepped } from './stepped.ts'
import { done, refuse, runs, switchedOff, told, withoutPower } from './stepped.ts'

export function restart(nature: Nature, device: DeviceModel, to: Mode): Stepped {
  if (!answersIn(nature.family, device.mode)) return told(device, { kind: 'silent' })
  if (runs(nature.family, device) && !device.permission) return refuse(device, 'no-permission')
  return boot(nature, { ...device, session: undefined }, to)
}

export function keys(nature: Nature, device: DeviceModel, to: Mode): Stepped {
  if (isKind(nature.family, to, 'off')) return switchedOff(nature, device)
  return device.battery > 0
    ? boot(nature, { ...device, session: undefined }, to)
    : told(device, { kind: 'silent' })
}

/** Starting up: a torn loader never comes back, a start to the system follows the start rules. */
function boot(nature: Nature, device: DeviceModel, to: Mode): Stepped {
  if (!loaderIsWhole(device, nature.catalogue))
    return told(withoutPower(nature.family, { ...device, outcome: 'dead' }), { kind: 'silent' })
  const loader = Object.values(device.parts).find(({ role }) => role === 'loader')
  const image = loader === undefined ? undefined : imageOn(loader, nature.catalogue)
  const awake = { ...device, loaderVersion: image?.loaderVersion ?? device.loaderVersion }
  if (!isKind(nature.family, to, 'system'))
    return done(nature, { ...awake, mode: to }, { kind: 'restart' }, { kind: 'mode', mode: to })
  return startSystem(nature, awake)
}

function startSystem(nature: Nature, device: DeviceModel): Stepped {
  const outcome = startOutcome(nature.family, device, nature.catalogue)
  const main = buildOn(nature.family, device, nature.catalogue)
  const system = modeOfKind(nature.family, 'system')
  const starts = outcome === 'normal' || outcome === 'no-radio'
  if (!starts || main === undefined) {
    const back = { ...device, outcome, returns: device.returns + 1 }
    const looping = withoutPower(nature.family, back)
    return done(nature, looping, { kind: 'restart' }, { kind: 'silent' })
  }
  const back = main.release < device.data.release
  /* As long as nothing was written it starts as it always did: no first start, and no floor rises. */
  const first = Object.values(device.parts).some(({ map }) => !isUntouched(map))
  const started: DeviceModel = {
    ...device,
    outcome,
    returns: 0,
    mode: system,
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
  return done(nature, started, operation, { kind: 'mode', mode: system })
}
