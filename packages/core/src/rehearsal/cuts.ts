/**
 * Cuts of what changes a device: where each command may be cut, and the device after it. Reads the scene before a
 * command; gives the device as a loss of cable, battery or computer leaves it.
 */
import type { Command } from '../command/command.ts'
import { BLOCK_BYTES } from '../twin/blocks.ts'
import { install, installCut } from '../twin/installing.ts'
import type { DeviceModel } from '../twin/state.ts'
import type { Nature, TwinInput } from '../twin/stepped.ts'
import { withoutPower } from '../twin/stepped.ts'
import { step } from '../twin/twin.ts'
import { cutAt } from '../twin/written.ts'
import type { Scene } from './drive.ts'

export const CUT_KINDS = ['cable', 'battery', 'computer'] as const
export type CutKind = (typeof CUT_KINDS)[number]

type Put = Extract<Command, { kind: 'put' }>
type File = Extract<Command, { kind: 'copy' | 'push' }>
type Told = Extract<Command, { kind: 'erase' | 'lock' | 'slot' | 'permit' | 'merge' }>
type Hands = Extract<Command, { kind: 'person' }>
export type Changing = Put | File | Told | Hands

/** Whether a command changes the device: by bytes, by a word, or by hands that start or confirm an install. */
export const isChanging = (command: Command): command is Changing =>
  command.kind === 'person'
    ? command.ask === 'install' || command.ask === 'confirm'
    : ['put', 'copy', 'push', 'erase', 'lock', 'slot', 'permit', 'merge'].includes(command.kind)

/**
 * Where a command is cut. Bytes: before the first, off a block, at the last one unacknowledged, after it. What
 * the device writes by itself: in the middle of it, and after it. Anything else: before it is heard, and once it
 * is done and nothing was said.
 */
export function positionsOf(command: Changing): readonly number[] {
  if (command.kind === 'person') return command.ask === 'install' ? [0, 1, 2] : [0, 1]
  if (command.kind !== 'put' && command.kind !== 'copy' && command.kind !== 'push') return [0, 1]
  const { size } = command
  const off = Math.min(size - 1, Math.floor(size / 2 / BLOCK_BYTES) * BLOCK_BYTES + 100)
  return [0, off, size, size + 1, ...(command.kind === 'push' ? [size + 2] : [])]
}

/** The device after a cut of the command that a scene is about to send. */
export function afterCut(
  nature: Nature,
  scene: Scene,
  command: Changing,
  bytes: number,
  kind: CutKind,
): DeviceModel {
  const powerGone = kind === 'battery'
  switch (command.kind) {
    case 'put':
      return afterPutCut(nature, scene, command, bytes, powerGone)
    case 'copy':
    case 'push':
      return afterFileCut(nature, scene, command, bytes, powerGone)
    case 'person':
      return afterHandsCut(nature, scene, command, bytes, powerGone)
    case 'erase':
    case 'lock':
    case 'slot':
    case 'permit':
    case 'merge': {
      const { state, device } = scene
      const { mode: _mode, ...input } = command
      const { epoch } = state
      const told: TwinInput =
        input.kind === 'permit'
          ? { kind: 'take-permit', epoch, permit: input.permit }
          : { ...input, epoch }
      const done = bytes === 0 ? device : step(nature, device, told, device.at).device
      return cutAt(nature.family, done, 0, powerGone)
    }
  }
}

function afterPutCut(
  nature: Nature,
  { state, device }: Scene,
  command: Put,
  bytes: number,
  powerGone: boolean,
): DeviceModel {
  const { epoch } = state
  const { size } = command
  const begun = step(nature, device, { ...command, kind: 'begin', epoch }, device.at).device
  if (bytes <= size) return cutAt(nature.family, begun, bytes, powerGone)
  const kept = step(nature, begun, { kind: 'chunk', epoch, offset: 0, size }, begun.at).device
  const ended = step(nature, kept, { kind: 'finish', epoch }, kept.at).device
  return cutAt(nature.family, ended, size, powerGone)
}

/** A file cut on its way; of one that is pushed the install that follows it too. */
function afterFileCut(
  nature: Nature,
  { state, device }: Scene,
  { kind, store, name, size, image }: File,
  bytes: number,
  powerGone: boolean,
): DeviceModel {
  const { epoch } = state
  const to = (from: DeviceModel, input: TwinInput) => step(nature, from, input, from.at).device
  const begun = to(device, { kind: 'file-put', epoch, store, name, size, image })
  const got = Math.min(size, bytes)
  const sent = got === 0 ? begun : to(begun, { kind: 'chunk', epoch, offset: 0, size: got })
  const off = (left: DeviceModel) => (powerGone ? withoutPower(nature.family, left) : left)
  if (bytes <= size) return off(sent)
  const whole = to(sent, { kind: 'finish', epoch })
  if (kind === 'copy') return off(whole)
  const asked = { kind: 'install', epoch, store, name } as const
  if (bytes === size + 1 && powerGone) return installCut(nature, whole, asked, HALF)
  return off(install(nature, whole, asked).device)
}

/** An install that hands started, cut in its middle; or what waits for a hand. */
function afterHandsCut(
  nature: Nature,
  { device }: Scene,
  { ask, store }: Hands,
  bytes: number,
  powerGone: boolean,
): DeviceModel {
  const off = (left: DeviceModel) => (powerGone ? withoutPower(nature.family, left) : left)
  if (bytes === 0) return off(device)
  if (ask === 'confirm') return off(step(nature, device, { kind: 'confirm' }, device.at).device)
  if (store === undefined) return off(device)
  const asked = { kind: 'install', store, name: undefined } as const
  if (bytes === 1 && powerGone) return installCut(nature, device, asked, HALF)
  return off(install(nature, device, asked).device)
}

/** The middle of what the device writes by itself: of its parts the first are new, one is torn, the rest old. */
const HALF = 0.5
