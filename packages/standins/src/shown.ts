/** A simulated device as the Bench shows it, and what hands can do with it as it is now. */
import type { StandInDevice } from '@plain-slate/api'
import type { Family, Mode, Store, Way } from '@plain-slate/core'
import { beginsIn, heldFor, installsByHand, kindOf, modeName } from '@plain-slate/core'
import { promptOf } from './device-events.ts'
import { keysIn, partsToTear } from './faults.ts'
import type { OnBench } from './on-bench.ts'
import { canReset, isBack } from './on-bench.ts'

export function shownOf({ device, clock }: OnBench): StandInDevice {
  const { model, file } = device
  const { family } = device.nature
  const away = !isBack(device, clock)
  return {
    serial: model.serial,
    name: file.name,
    model: model.fused.model,
    port: device.port,
    mode: away ? null : shownMode(family, model.mode),
    battery: Math.round(model.battery),
    cellOut: device.cellOut,
    permission: model.permission,
    removable: family.cell === 'removable',
    canReset: !away && canReset(device),
    installs: away
      ? []
      : installsByHand(device.nature, model).map(({ from }) => shownStore(family, from)),
    asks: away ? null : (promptOf(family, model)?.text ?? null),
    account: model.account === 'on',
    lockSwitch: family.lock.opens === 'command' ? model.lockSwitch : null,
    pace: clock.pace,
    keys: away ? [] : keysOf(family, model.mode),
    chord: keysIn(family).map((key) => ({ key, works: !device.brokenKeys.includes(key) })),
    parts: partsToTear(model),
  }
}

const shownStore = ({ stores }: Family, id: Store) => ({
  id,
  name: stores.find((one) => one.id === id)?.name ?? id,
})

/** How long keys are held on a way, from and to. */
export function heldBand({ acts = [] }: Way): [number, number] | null {
  const band = heldFor({ acts })
  return band === undefined ? null : [band[0], band[1]]
}

/** The ways that hands can go from a mode, in the family's words. */
export const keysOf = (family: Family, mode: Mode) =>
  family.ways
    .filter((way) => way.hands && beginsIn(way, mode))
    .map((way) => ({
      to: shownMode(family, way.to),
      say: way.say,
      held: heldBand(way),
    }))

const shownMode = (family: Family, id: Mode) => ({
  id,
  name: modeName(family, id),
  kind: kindOf(family, id) ?? null,
})
