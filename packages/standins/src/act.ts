/** What hands do with simulated devices; each answers a sentence where that cannot be done. */
import type { StandInAct } from '@plain-slate/api'
import type { Family, Mode, Store } from '@plain-slate/core'
import { beginsIn, installsByHand, isKind, modeProfile } from '@plain-slate/core'
import { REFUSAL_TEXTS } from './answers.ts'
import type { ComputerAct } from './computer.ts'
import type { SimulatedDevice } from './device.ts'
import { promptOf } from './device-events.ts'
import { brokenIn, keysIn, tear } from './faults.ts'
import type { OnBench } from './on-bench.ts'
import { canReset, drop, nameOf } from './on-bench.ts'
import { heldBand, keysOf } from './shown.ts'

/** Where keys lead that were held for so long: let go too early or too late is the usual slip. */
function ledTo(
  family: Family,
  from: Mode,
  { to, held }: { readonly to: Mode; readonly held?: number },
): Mode {
  const way = family.ways.find((one) => one.hands && beginsIn(one, from) && one.to === to)
  const band = way && heldBand(way)
  const missed = held !== undefined && band && (held < band[0] || held > band[1])
  return missed ? (way.slip?.leads ?? from) : to
}

export type DeviceAct = Exclude<StandInAct, ComputerAct | { readonly kind: 'like' }>

/** `hubAt`: several may hang at that port. */
export function actOn(
  devices: readonly OnBench[],
  hubAt: (port: string) => boolean,
  act: DeviceAct,
): string | undefined {
  const one = devices.find(({ device }) => device.model.serial === act.serial)
  if (one === undefined) return `There is no simulated device ${act.serial}.`
  const { device, clock } = one
  const now = clock.now(device.model.at)
  switch (act.kind) {
    case 'plug':
      return plugged(devices, hubAt, one, act.port)
    case 'unplug':
      device.unplug()
      return drop(one)
    case 'cell-out':
      if (device.nature.family.cell === 'sealed') return 'Its cell does not come out by hand.'
      device.takeCellOut()
      return drop(one)
    case 'cell-in':
      device.putCellIn()
      return undefined
    case 'charge':
      return charged(device, act.percent, now)
    case 'keys':
      return pressed(one, act, now)
    case 'key':
      if (!keysIn(device.nature.family).includes(act.key)) return `It has no key ${act.key}.`
      device.key(act.key, act.works)
      return undefined
    case 'tear':
      return tear(device, act.part)
    case 'permit':
      if (!isKind(device.nature.family, device.model.mode, 'system'))
        return `Its settings cannot be reached in this mode (${nameOf(device)}).`
      device.byHand({ kind: 'permit', given: act.given }, now)
      return act.given ? undefined : drop(one)
    case 'reset':
      if (!canReset(device)) return `No reset can be asked of it in this mode (${nameOf(device)}).`
      device.byHand({ kind: 'reset' }, now)
      return drop(one)
    case 'lock-switch':
    case 'sign-out':
      return inSettings(device, act, now)
    case 'install':
      return installed(one, act.store, now)
    case 'confirm':
      if (promptOf(device.nature.family, device.model) === undefined) return 'It asks for nothing.'
      device.byHand({ kind: 'confirm' }, now)
      return undefined
    case 'cut':
      device.planCut({ piece: act.piece, bytes: act.bytes, kind: act.how, asked: act.asked })
      return undefined
  }
}

/** Up where it charges; it may run low anywhere. */
function charged(device: SimulatedDevice, percent: number, now: number): string | undefined {
  const { family } = device.nature
  if (percent > device.model.battery && modeProfile(family, device.model.mode)?.charges !== true)
    return `It does not charge in this mode (${nameOf(device)}).`
  device.byHand({ kind: 'charge', percent }, now)
  return undefined
}

/** A chord or a menu, where keys lead there and all of them answer. */
function pressed(
  one: OnBench,
  act: Extract<StandInAct, { kind: 'keys' }>,
  now: number,
): string | undefined {
  const { device } = one
  const { family } = device.nature
  const from = device.model.mode
  if (!keysOf(family, from).some(({ to }) => to.id === act.to))
    return `From ${nameOf(device)} no keys lead to ${act.to}.`
  const broken = brokenIn(family, { from, to: act.to }, device.brokenKeys)
  if (broken !== undefined) return `Its key ${broken} does not answer: it stays as it was.`
  /* A chord from off is held while the cell goes in. */
  device.putCellIn()
  device.keys(ledTo(family, from, act), now)
  return drop(one)
}

/** What its owner turns in its settings. */
function inSettings(
  device: SimulatedDevice,
  act: Extract<StandInAct, { kind: 'lock-switch' | 'sign-out' }>,
  now: number,
): string | undefined {
  if (act.kind === 'sign-out') {
    device.byHand({ kind: 'sign-out' }, now)
    return device.model.account === 'none'
      ? undefined
      : 'Its account stays on it: its settings are not reached in this mode.'
  }
  device.byHand({ kind: 'lock-switch', on: act.on }, now)
  return device.model.lockSwitch === act.on
    ? undefined
    : 'The switch stays as it is: greyed, or not to be found in this mode.'
}

function plugged(
  devices: readonly OnBench[],
  hubAt: (port: string) => boolean,
  one: OnBench,
  port: string,
): string | undefined {
  const other = devices.find((two) => two !== one && two.device.port === port)
  if (other !== undefined && !hubAt(port)) return `${port} holds ${other.device.model.serial}.`
  one.device.plug(port)
  return undefined
}

/** Started from its menu; while it installs nobody is heard on its cable. */
function installed(one: OnBench, store: Store, now: number): string | undefined {
  const { nature, model } = one.device
  if (!installsByHand(nature, model).some(({ from }) => from === store))
    return `Nothing is installed from there in this mode (${nameOf(one.device)}).`
  const code = one.device.installByHand(store, now)
  drop(one)
  return code === undefined ? undefined : REFUSAL_TEXTS[code]
}
