/** A device's facts as a port's tile shows them. */
import type { Seen } from '@plain-slate/api'
import type { DeviceFacts } from '@plain-slate/core'

export const seenOf = (facts: DeviceFacts): Seen => ({
  serial: facts.serial,
  model: facts.model,
  board: facts.board,
  build: facts.build ?? null,
  mode: facts.mode,
  battery: facts.batteryPercent,
  loaderVersion: facts.loaderVersion,
})
