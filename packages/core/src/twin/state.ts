/**
 * The model of a device: what stands on it, what it remembers, how its last start went. Reads nothing; gives
 * the shapes. Time is passed in. Unknown is said by `undefined` where a device may not show it.
 */
import type { Limit, Mode, PartRole, Slot, Store } from '../terms/device.ts'
import type { Fused, Merge, StartOutcome } from '../wire/facts.ts'
import type { BlockMap } from './blocks.ts'
import { untouched } from './blocks.ts'

export type Part = {
  readonly role: PartRole
  readonly slot: Slot | undefined
  readonly blocks: number
  readonly map: BlockMap
  /** The image that stood there when the device came in; undefined: none we know. */
  readonly was: string | undefined
}

/** A begun piece: what was announced, and how many bytes of it are kept. */
export type Session = {
  readonly partition: string
  readonly offset: number
  readonly size: number
  readonly image: string
  readonly got: number
}

/** A file in a store: what it holds whole, by the SHA-256 of a package; '' where it was cut short. */
export type StoredFile = {
  readonly store: Store
  readonly name: string
  readonly size: number
  readonly holds: string
}

/** A file on its way to a store. */
export type Incoming = StoredFile & { readonly got: number }

/** The lowest generation accepted, by role; `all` where the family keeps one for the whole. */
export type Floors = Readonly<Partial<Record<PartRole | 'all', number>>>

/** Which slot runs, which is to be tried at the next start, and which were found good. */
export type Slots = {
  readonly runs: Slot
  readonly tries: Slot | undefined
  readonly good: readonly Slot[]
}

/**
 * The customer's data: whether they open, by which build they were last used. `none`: an act erased them.
 * `resetAsked`: nothing opens them any more, and the next start asks for a reset.
 */
export type DeviceData = {
  readonly form: 'readable' | 'unreadable' | 'none'
  readonly release: number
  readonly patchDate: string
  readonly track: string
  readonly resetAsked: boolean
  readonly items: number
  readonly bytes: number
}

export type DeviceModel = {
  readonly serial: string
  readonly fused: Fused
  readonly mode: Mode
  readonly parts: Readonly<Record<string, Part>>
  readonly session: Session | undefined
  readonly files: readonly StoredFile[]
  readonly incoming: Incoming | undefined
  /** What it wrote by itself waits for a hand, until then, ms of model time; undefined: nothing does. */
  readonly confirmBy: number | undefined
  /** The permit that it was given and has not used, by its id; those that it used. */
  readonly permit: string | undefined
  readonly spent: readonly string[]
  /** A key that its first start asks for: not at all, at that start, now. */
  readonly key: 'none' | 'due' | 'asked'
  /** Percent, with fractions. */
  readonly battery: number
  readonly floors: Floors
  readonly lock: 'closed' | 'open'
  /** Whether the switch for opening the lock is on. */
  readonly lockSwitch: boolean
  /** When somebody went through its set-up, ms of model time; undefined: long ago, or not since it was wiped. */
  readonly setUpAt: number | undefined
  readonly permission: boolean
  readonly loaderVersion: number
  readonly slots: Slots | undefined
  readonly merge: Merge
  /** Until when it merges, once its system runs, ms of model time; undefined: it waits for a start. */
  readonly mergeUntil: number | undefined
  readonly data: DeviceData
  /** An account is on it; `asked`: it was wiped with one on, and asks for its sign-in. */
  readonly account: 'none' | 'on' | 'asked'
  readonly marks: readonly string[]
  /** Something was written or erased since it last started. */
  readonly fresh: boolean
  /** How the last start went, what it cannot do, and how often it came back by itself since. */
  readonly outcome: StartOutcome
  readonly limits: readonly Limit[]
  readonly returns: number
  /** The sentence it shows since its last start; undefined: none of its family's. */
  readonly shows: string | undefined
  /** The highest epoch met; older ones are refused. */
  readonly epoch: number
  /** Up to when this state was reckoned, ms of model time. */
  readonly at: number
}

/** A partition as it came in, holding an image we may know. */
export const partOf = (
  role: PartRole,
  blocks: number,
  was: string | undefined,
  slot?: Slot,
): Part => ({
  role,
  slot,
  blocks,
  map: untouched(blocks),
  was,
})
