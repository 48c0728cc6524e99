/**
 * The kinds of step a plan is made of, as data. Reads nothing; gives the union that effects, commands
 * and folds switch over: a new kind shows by itself where it must be handled. Offsets and sizes are the
 * real bytes of the flash; times follow model bytes (real bytes times the package's scale).
 */
import { z } from 'zod'
import type { Way } from '../family/profile.ts'
import type { Image } from '../firmware/manifest.ts'
import type { Mode } from '../terms/device.ts'

/** What a person makes sure of before anything is written. */
export const READINESS = ['charge', 'backup', 'permission', 'cable'] as const
export type Readiness = (typeof READINESS)[number]

export type StepBody =
  | { readonly kind: 'ready'; readonly what: Readiness; readonly seconds: number }
  /** `answers`: whether the mode at its end answers over the link. */
  | { readonly kind: 'enter'; readonly way: Way; readonly answers: boolean }
  | { readonly kind: 'meet'; readonly mode: Mode }
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
  | { readonly kind: 'restart'; readonly to: Mode }
  | { readonly kind: 'first-start'; readonly to: Mode; readonly wiped: boolean }
  | { readonly kind: 'prove'; readonly expect: Expected }

/** What the device must say of itself at the end. */
export const expectedSchema = z
  .object({ build: z.string(), release: z.int(), loaderVersion: z.int(), floor: z.int() })
  .readonly()
export type Expected = z.infer<typeof expectedSchema>

/** A step with its number in the plan, from 1. */
export type Step = StepBody & { readonly number: number }
