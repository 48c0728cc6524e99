/**
 * The kinds of step a plan is made of, as data. Reads nothing; gives the union that effects, commands
 * and folds switch over: a new kind shows by itself where it must be handled. Offsets and sizes are the
 * real bytes of the flash; times follow model bytes (real bytes times the package's scale).
 */
import { z } from 'zod'
import type { Way } from '../family/profile.ts'
import type { Image } from '../firmware/manifest.ts'
import type { Mode, PartRole, Slot, Store } from '../terms/device.ts'
import { limitSchema } from '../terms/device.ts'
import type { Permit } from '../wire/permit.ts'

/** What a person makes sure of before anything is written. */
export const READINESS = ['charge', 'backup', 'permission', 'cable'] as const
export type Readiness = (typeof READINESS)[number]

/** What a person does in between: wipes by hand, goes through the set-up, says yes to what it installed, presses a key. */
export const BY_HAND = ['reset', 'set-up', 'confirm', 'go-on', 'lock-switch'] as const
export type ByHand = (typeof BY_HAND)[number]

/** The ids that a device must have at each meeting, as far as its mode shows them. */
export const idsSchema = z
  .object({ model: z.string(), board: z.string(), chipset: z.string() })
  .partial()
  .readonly()
export type Ids = z.infer<typeof idsSchema>

/** A package's archive as a file of a store; bytes are real ones. */
export type InStore = {
  readonly mode: Mode
  readonly store: Store
  readonly name: string
  readonly pack: string
  /** SHA-256 of the archive. */
  readonly archive: string
  readonly bytes: number
  readonly scale: number
}

/**
 * What is looked at again before the first write: the table that the plan was made on, and every image that is left
 * alone because the device's own digest was its.
 */
export type MeetLook = {
  readonly table: string | undefined
  readonly left: readonly { readonly image: Image; readonly scale: number }[]
}

export type StepBody =
  | { readonly kind: 'ready'; readonly what: Readiness; readonly seconds: number }
  /** `answers`: whether the mode at its end answers over the link. */
  | { readonly kind: 'enter'; readonly way: Way; readonly answers: boolean }
  /** Plans that were made before anything was looked at again have no `look`. */
  | { readonly kind: 'meet'; readonly mode: Mode; readonly ids: Ids; readonly look?: MeetLook }
  | {
      readonly kind: 'write'
      readonly mode: Mode
      readonly pack: string
      readonly image: Image
      readonly piece: number
      readonly pieces: number
      readonly offset: number
      readonly size: number
      readonly scale: number
    }
  | {
      readonly kind: 'read-back'
      readonly mode: Mode
      readonly pack: string
      readonly image: Image
      readonly scale: number
    }
  | {
      readonly kind: 'erase'
      readonly mode: Mode
      readonly partition: string
      readonly role: PartRole
    }
  | {
      readonly kind: 'lock'
      readonly mode: Mode
      readonly to: 'open' | 'closed'
      readonly model: string
    }
  | { readonly kind: 'slot'; readonly mode: Mode; readonly slot: Slot }
  | { readonly kind: 'permit'; readonly mode: Mode; readonly permit: Permit }
  /** Its own update waited for, or taken back. */
  | { readonly kind: 'merge'; readonly mode: Mode; readonly do: 'wait' | 'cancel' }
  | { readonly kind: 'restart'; readonly to: Mode }
  /** `by`: hands start it; over the link where nothing is said. */
  | {
      readonly kind: 'first-start'
      readonly to: Mode
      readonly wiped: boolean
      readonly by?: Way
    }
  /** A whole package to a store of the device, and its own digest of it. */
  | ({ readonly kind: 'copy' | 'prove-copy' } & InStore)
  /** A whole package pushed, which the device opens, looks over and writes by itself. */
  | ({ readonly kind: 'push'; readonly slowly: boolean; readonly slot: Slot | undefined } & InStore)
  /** The same of a package in a store, started by hands. */
  | ({
      readonly kind: 'install'
      readonly slowly: boolean
      readonly slot: Slot | undefined
      readonly say: string
      readonly seconds: number
    } & InStore)
  | { readonly kind: 'drop'; readonly mode: Mode; readonly store: Store; readonly name: string }
  | {
      readonly kind: 'by-hand'
      readonly what: ByHand
      readonly say: string
      readonly mode?: Mode
      readonly seconds: number
    }
  | { readonly kind: 'prove'; readonly expect: Expected; readonly wiped: boolean }

/**
 * What the device must say of itself at the end, of what its mode shows. `outcome` is how it starts, with what
 * it cannot do then: a fault of its board that is known is no surprise.
 */
export const expectedSchema = z
  .object({
    build: z.string(),
    release: z.int(),
    loaderVersion: z.int(),
    floor: z.int(),
    floorLoader: z.int(),
    floorModem: z.int(),
    floorMain: z.int(),
    bootLock: z.enum(['open', 'closed']),
    slot: z.enum(['a', 'b']),
    limits: z.array(limitSchema),
  })
  .partial()
  .required({ build: true, release: true })
  .readonly()
export type Expected = z.infer<typeof expectedSchema>

/** A step with its number in the plan, from 1. */
export type Step = StepBody & { readonly number: number }
