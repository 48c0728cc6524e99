/**
 * What goes wrong with devices in hands: a key that does not answer, a part whose bytes are damaged, a like device that
 * lies beside it. Never the customer's data, calibration or the table: those no hand here touches.
 */
import { cpSync, existsSync } from 'node:fs'
import type { DeviceModel, Family, Mode, PartRole } from '@plain-slate/core'
import { BLOCK_BYTES, beginsIn, lay } from '@plain-slate/core'
import type { SimulatedDevice } from './device.ts'
import type { DeviceFile } from './device-file.ts'
import { writeDevice } from './device-file.ts'
import { openFlash } from './flash.ts'

const NEVER: readonly PartRole[] = ['customer', 'calib', 'table']
/** A byte that no image here begins with. */
const TORN = 0xa5
const STRIDE = 1 << 20

/** Keys that chords of a family hold. */
export const keysIn = ({ ways }: Family): readonly string[] => [
  ...new Set(ways.flatMap(({ acts = [] }) => acts.flatMap((act) => act.keys ?? []))),
]

/** The first key of the way that hands would go which does not answer; undefined: all do. */
export const brokenIn = (
  { ways }: Family,
  { from, to }: { readonly from: Mode; readonly to: Mode },
  broken: readonly string[],
): string | undefined =>
  ways
    .find((way) => way.hands && beginsIn(way, from) && way.to === to)
    ?.acts?.flatMap((act) => act.keys ?? [])
    .find((key) => broken.includes(key))

/** Partitions that can be damaged by hand. */
export const partsToTear = ({ parts }: DeviceModel): string[] =>
  Object.entries(parts).flatMap(([name, { role }]) => (NEVER.includes(role) ? [] : [name]))

/** Damages the first block of a part; a sentence where there is none to damage. */
export function tear(device: SimulatedDevice, name: string): string | undefined {
  const { model, file, flash } = device
  const part = model.parts[name]
  if (part === undefined || !partsToTear(model).includes(name))
    return `No part ${name} of it is damaged by hand.`
  flash.write(file.starts[name] ?? 0, new Uint8Array(BLOCK_BYTES).fill(TORN))
  const map = lay(part.map, { from: 0, to: 1, kind: 'torn' })
  device.befall({ ...model, parts: { ...model.parts, [name]: { ...part, map } } })
  return undefined
}

/** Lays a device like this one beside it, under a serial of its own; answers its file. */
export function layBeside(
  { device, path }: { readonly device: SimulatedDevice; readonly path: string },
  taken: readonly string[],
): string {
  const kept = device.kept()
  const serial = serialBeside(kept.model.serial, taken)
  const its = path.replace(kept.model.serial, serial)
  const beside = (one: string, ending: string) => one.replace(/\.json$/, ending)
  copyFlash(device, kept, beside(its, '.flash'))
  if (existsSync(beside(path, '.files')))
    cpSync(beside(path, '.files'), beside(its, '.files'), { recursive: true })
  writeDevice(its, {
    ...kept,
    name: `like ${kept.name}`,
    port: null,
    model: { ...kept.model, serial, session: undefined, epoch: 0 },
  })
  return its
}

/** The same but for its end, as devices of one box are numbered. */
function serialBeside(serial: string, taken: readonly string[]): string {
  const stem = serial.slice(0, -2)
  for (let n = 0; n < 100; n += 1) {
    const one = stem + String(n).padStart(2, '0')
    if (one !== serial && !taken.includes(one)) return one
  }
  throw new Error(`a hundred devices are like ${serial}`)
}

function copyFlash({ flash }: SimulatedDevice, { diskBytes }: DeviceFile, path: string): void {
  const copy = openFlash(path, diskBytes)
  for (const { from, to } of flash.extents())
    for (let at = from; at < to; at += STRIDE)
      copy.write(at, flash.read(at, Math.min(STRIDE, to - at)))
  copy.close()
}
