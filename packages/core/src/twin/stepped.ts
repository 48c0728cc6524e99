/**
 * What every act of the twin is made of: what a device is besides its state, what it says, and how time and
 * charge pass. Reads a device and an operation; gives the device after it.
 */
import { effectOf } from '../effect/effect.ts'
import { answersIn, isKind, modeOfKind } from '../family/modes.ts'
import type { Family, PaceKey } from '../family/profile.ts'
import { paceOf } from '../pace/pace.ts'
import type { Mode, Slot, Store } from '../terms/device.ts'
import type { DeviceFacts } from '../wire/facts.ts'
import type { Permit } from '../wire/permit.ts'
import type { DeviceRefusal } from '../wire/verbs.ts'
import type { Catalogue } from './images.ts'
import { withoutMemory } from './memory.ts'
import type { Packages } from './packages.ts'
import { faultDrain } from './start.ts'
import type { DeviceModel } from './state.ts'

/** What this device is besides its state: its family, its images' facts, its scale and its pace. */
export type Nature = {
  readonly family: Family
  readonly catalogue: Catalogue
  readonly packages: Packages
  readonly scale: number
  readonly pick: number
  /** What makers have permitted. */
  readonly permits?: readonly Permit[]
}

export type TwinInput =
  | { readonly kind: 'hello'; readonly epoch: number }
  | {
      readonly kind: 'begin'
      readonly epoch: number
      readonly partition: string
      readonly offset: number
      readonly size: number
      readonly image: string
    }
  | {
      readonly kind: 'chunk'
      readonly epoch: number
      readonly offset: number
      readonly size: number
    }
  | { readonly kind: 'finish'; readonly epoch: number }
  /** A range as it stands: its digest, that of each of its blocks, or its bytes. */
  | {
      readonly kind: 'digest' | 'blocks' | 'read'
      readonly partition: string
      readonly size: number
    }
  /** Whether a piece's range already holds the image's blocks. */
  | {
      readonly kind: 'look'
      readonly partition: string
      readonly offset: number
      readonly size: number
      readonly image: string
    }
  | { readonly kind: 'facts' }
  | { readonly kind: 'tally' }
  /** `image`: the SHA-256 of the whole file. */
  | {
      readonly kind: 'file-put'
      readonly epoch: number
      readonly store: Store
      readonly name: string
      readonly size: number
      readonly image: string
    }
  | { readonly kind: 'file-list'; readonly store: Store }
  | { readonly kind: 'file-digest'; readonly store: Store; readonly name: string }
  | {
      readonly kind: 'file-drop'
      readonly epoch: number
      readonly store: Store
      readonly name: string
    }
  /** Told over the link which file; or started by hands, who name none. */
  | {
      readonly kind: 'install'
      readonly epoch?: number
      readonly store: Store
      readonly name: string | undefined
    }
  /** A hand says yes to what the device asks after it installed. */
  | { readonly kind: 'confirm' }
  | { readonly kind: 'erase'; readonly epoch: number; readonly partition: string }
  | { readonly kind: 'lock'; readonly epoch: number; readonly to: 'open' | 'closed' }
  | { readonly kind: 'slot'; readonly epoch: number; readonly slot: Slot }
  | { readonly kind: 'take-permit'; readonly epoch: number; readonly permit: Permit }
  /** Its own update waited for in its system, or taken back in its rescue. */
  | { readonly kind: 'merge'; readonly epoch: number; readonly do: 'wait' | 'cancel' }
  /** A reset asked for by hand: in its settings, in a menu, or on the page that asks for it. */
  | { readonly kind: 'reset' }
  /** The switch for opening the lock, on the page for developers. */
  | { readonly kind: 'lock-switch'; readonly on: boolean }
  /** Its owner signs out of the account that is on it. */
  | { readonly kind: 'sign-out' }
  | { readonly kind: 'restart'; readonly epoch: number; readonly to: Mode }
  /** Hands: the keys of a chord, the cell taken out, the charger. */
  | { readonly kind: 'keys'; readonly to: Mode }
  | { readonly kind: 'power-off' }
  | { readonly kind: 'charge'; readonly percent: number }
  /** The link permission, given or withdrawn in the settings of a device that runs. */
  | { readonly kind: 'permit'; readonly given: boolean }

export type TwinOutput =
  | { readonly kind: 'facts'; readonly facts: DeviceFacts }
  | { readonly kind: 'kept'; readonly got: number }
  | { readonly kind: 'digest'; readonly image: string | undefined }
  | { readonly kind: 'mode'; readonly mode: Mode }
  | {
      readonly kind: 'files'
      readonly files: readonly { readonly name: string; readonly size: number }[]
    }
  /** Carried out, and nothing more to say. */
  | { readonly kind: 'done' }
  | {
      readonly kind: 'tally'
      readonly items: number
      readonly bytes: number
      readonly opens: boolean
    }
  | { readonly kind: 'refused'; readonly code: DeviceRefusal }
  | { readonly kind: 'silent' }

export type Stepped = {
  readonly device: DeviceModel
  readonly output: TwinOutput
  /** When the device has done it, ms of model time. */
  readonly doneAt: number
}

/** The epoch of a meeting that only reads: it owns nothing, and no newer owner is in its way. */
export const LOOKING = 0

/** Whether its system runs. */
export const runs = (family: Family, { mode }: DeviceModel): boolean =>
  isKind(family, mode, 'system')

/** Off, hung, looping, or running with its link permission withdrawn: it answers nothing. */
export const isMute = (family: Family, device: DeviceModel): boolean =>
  !answersIn(family, device.mode) || (runs(family, device) && !device.permission)

/** Without power: an open piece and what it had in memory are gone. */
export const withoutPower = (family: Family, device: DeviceModel): DeviceModel => ({
  ...withoutMemory(device),
  mode: modeOfKind(family, 'off'),
  session: undefined,
})

export function switchedOff({ family }: Nature, device: DeviceModel): Stepped {
  const off = withoutPower(family, device)
  return told(off, { kind: 'mode', mode: off.mode })
}

export const told = (device: DeviceModel, output: TwinOutput): Stepped => ({
  device,
  output,
  doneAt: device.at,
})
export const refuse = (device: DeviceModel, code: DeviceRefusal): Stepped =>
  told(device, { kind: 'refused', code })

/** Charge taken off; an empty cell switches the device off and its session is gone. */
export function drained(family: Family, device: DeviceModel, percent: number): DeviceModel {
  if (percent === 0 && device.battery > 0) return device
  const battery = Math.max(0, device.battery - percent)
  if (battery > 0) return { ...device, battery }
  return withoutPower(family, { ...device, battery: 0 })
}

/** How long a phase of the family lasts on this device, ms. */
export function lastsOf({ family, pick }: Nature, key: PaceKey): number {
  const { low, high } = paceOf(family, { pace: { key, bytes: 0 } })
  return Math.round((low + (high - low) * pick) * 1000)
}

/** An operation carried out, or a share of it: its time passes, its charge is drained. */
export function done(
  { family, catalogue, pick }: Nature,
  device: DeviceModel,
  operation: Parameters<typeof effectOf>[1],
  output: TwinOutput,
  share = 1,
): Stepped {
  const effect = effectOf(family, operation)
  const { low, high } = paceOf(family, effect)
  const lasts = Math.round((low + (high - low) * pick) * 1000 * share)
  const minutes = lasts / 60_000
  const rate = effect.drain === 'none' ? 0 : family.drainPerMinute[effect.drain]
  const drains = rate * minutes * faultDrain(family, device, catalogue)
  const after = drained(family, { ...device, at: device.at + lasts }, drains)
  return { device: after, output, doneAt: after.at }
}
