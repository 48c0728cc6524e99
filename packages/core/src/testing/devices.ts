/** Readings of the lead device, the handheld of slip 0417, for core's tests. */
import type { Reading } from '../device/identity.ts'
import type { Fact, Source } from '../terms/device.ts'
import { ms } from '../units/units.ts'
import type { DeviceFacts } from '../wire/facts.ts'

/** One reading, over the link unless told otherwise. */
export function reading(
  fact: Fact,
  value: string | number,
  source: Source = 'link',
  at = 1000,
): Reading {
  return { fact, value, source, at: ms(at), mode: 'loader', person: 'Tavi' }
}

const FACTS_OF_0417: readonly (readonly [Fact, string | number])[] = [
  ['model', 'BRAK-H2K'],
  ['board', 'r4'],
  ['chipset', 'Slate 2'],
  ['storageGb', 32],
  ['region', 'HI'],
  ['carrier', 'O'],
  ['build', 'H2.0ZC.r4'],
  ['release', 4],
  ['patchDate', '2026-06-01'],
  ['loaderVersion', 6],
  ['floor', 5],
  ['bootLock', 'closed'],
  ['accountLock', 'absent'],
  ['serial', 'TRN4490077F31'],
  ['batteryPercent', 71],
]

/** All facts of the lead device; `more` adds or (being newer) replaces. */
export function readings0417(more: readonly Reading[] = []): readonly Reading[] {
  return [...FACTS_OF_0417.map(([fact, value]) => reading(fact, value)), ...more]
}

/** The same without some facts. */
export const without = (...facts: readonly Fact[]): readonly Reading[] =>
  readings0417().filter((one) => !facts.includes(one.fact))

/** What the lead device says of itself in its loader, but for what is named. */
export const facts0417 = (more: Partial<DeviceFacts> = {}): DeviceFacts => ({
  model: 'BRAK-H2K',
  board: 'r4',
  chipset: 'Slate 2',
  storageGb: 32,
  region: 'HI',
  carrier: 'O',
  serial: 'TRN4490077F31',
  mode: 'loader',
  loaderVersion: 6,
  floor: 5,
  bootLock: 'closed',
  batteryPercent: 71,
  outcome: 'normal',
  returns: 0,
  scale: 256,
  ...more,
})
