/**
 * What a device says of itself when it is asked: what its family lets its mode show over the link, and nothing
 * else. Reads a device; gives facts, of which what is not shown is absent.
 */
import { isKind, isToldIn, takesIn } from '../family/modes.ts'
import type { Family } from '../family/profile.ts'
import type { Fact } from '../terms/device.ts'
import type { DeviceFacts } from '../wire/facts.ts'
import { floorFact } from '../wire/facts.ts'
import { buildOn } from './parts.ts'
import type { DeviceModel } from './state.ts'
import type { Nature } from './stepped.ts'

/** The facts its mode shows over the link. How its last start went it always says. */
export function factsOf({ family, catalogue, scale }: Nature, device: DeviceModel): DeviceFacts {
  const build = buildOn(family, device, catalogue)
  const { fused, serial, mode, outcome, limits, returns, slots, shows, marks } = device
  const floors = Object.entries(device.floors).map(([role, floor]) => [
    floorFact(role as keyof DeviceModel['floors']),
    floor,
  ])
  const all: Readonly<Record<string, unknown>> = {
    ...fused,
    ...(build === undefined
      ? {}
      : { build: build.build, release: build.release, patchDate: build.patchDate }),
    ...(build === undefined || build.track === '' ? {} : { track: build.track }),
    ...Object.fromEntries(floors),
    ...(slots === undefined ? {} : { slot: slots.runs }),
    loaderVersion: device.loaderVersion,
    bootLock: device.lock,
    merge: device.merge,
    ...(family.lock.opens === 'command' ? { lockSwitch: switchOf(family, device) } : {}),
    batteryPercent: Math.round(device.battery),
  }
  const tries = slots?.tries ?? slots?.runs
  const told = tries !== undefined && isToldIn(family, 'slot', mode)
  const shown = Object.entries(all).filter(([fact]) => isToldIn(family, fact as Fact, mode))
  return {
    ...(Object.fromEntries(shown) as Partial<DeviceFacts>),
    ...(told ? { slotToTry: tries } : {}),
    model: fused.model,
    serial,
    mode,
    outcome,
    ...(limits.length === 0 ? {} : { limits: [...limits] }),
    ...(shows === undefined ? {} : { shows }),
    ...(marks.length === 0 ? {} : { marks: [...marks] }),
    ...asked(family, device),
    ...(takesIn(family, mode, 'permit') ? { permit: permitOn(device) } : {}),
    returns,
    scale,
  }
}

const DAY_MS = 86_400_000

/** Whether that page lets nobody turn it: for good on some carriers, for days after the set-up on the others. */
export function isGreyed(
  { lock }: Pick<Family, 'lock'>,
  { at, fused, setUpAt }: DeviceModel,
): boolean {
  if (lock.opens !== 'command' || lock.neverOn.includes(fused.carrier)) return true
  return setUpAt !== undefined && at < setUpAt + lock.greyedDays * DAY_MS
}

/** As the page of its settings has it. */
const switchOf = (family: Family, device: DeviceModel): 'on' | 'off' | 'greyed' =>
  isGreyed(family, device) ? 'greyed' : device.lockSwitch ? 'on' : 'off'

/** What it waits for a hand to do: to say yes to what it installed, or to press a key before its system goes on. */
function asked(family: Family, { confirmBy, key, mode }: DeviceModel): Pick<DeviceFacts, 'asks'> {
  if (confirmBy !== undefined) return { asks: 'confirm' }
  return key === 'asked' && isKind(family, mode, 'system') ? { asks: 'go-on' } : {}
}

const permitOn = ({ permit }: DeviceModel) => (permit === undefined ? 'none' : 'granted')
