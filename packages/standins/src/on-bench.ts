/** A simulated device as it lies on the bench or hangs on a cable, with its clock and the stream that reached it last. */
import type { Duplex } from 'node:stream'
import { isKind, modeName } from '@plain-slate/core'
import type { ModelClock } from './clock.ts'
import type { SimulatedDevice } from './device.ts'
import { endSoftly } from './serve-stream.ts'

export type OnBench = {
  /** Its file; the flash lies beside it. */
  readonly path: string
  readonly device: SimulatedDevice
  readonly clock: ModelClock
  stream: Duplex | undefined
}

/** A restart takes its time: the model is there already, the cable is not. */
export const isBack = (device: SimulatedDevice, clock: ModelClock): boolean =>
  clock.pace === 0 || clock.now(0) >= device.awayUntil

/** The mode it is in, as its family calls it. */
export const nameOf = ({ nature, model }: SimulatedDevice): string =>
  modeName(nature.family, model.mode)

/** The stream of a device that left its cable ends; what was said already arrives. */
export function drop(one: OnBench): undefined {
  if (one.stream !== undefined) endSoftly(one.stream)
  one.stream = undefined
  return undefined
}

/** A reset is found in the settings of a system that runs, on the page that asks for one, and in a rescue. */
export const canReset = ({ nature: { family }, model: { mode } }: SimulatedDevice): boolean =>
  isKind(family, mode, 'system') || isKind(family, mode, 'rescue')
