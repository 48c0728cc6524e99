/** How a job fails, and what is tried then: words that a family, a slip's lines and triage share. */
import { z } from 'zod'

/** It is not seen where it should answer; a transfer broke off; it comes back again and again instead of starting. */
export const TROUBLES = ['unseen', 'transfer', 'loop'] as const
export const troubleSchema = z.enum(TROUBLES)
export type Trouble = z.infer<typeof troubleSchema>

/** What is tried, the least of it first. */
export const REMEDY_ACTS = [
  'again',
  'replug',
  'enter-again',
  'cable',
  'port',
  'rival',
  'driver',
  'restart-computer',
  'other-computer',
  'fetch-again',
  'compare',
  'cache',
  'reset',
] as const
export const remedyActSchema = z.enum(REMEDY_ACTS)
export type RemedyAct = z.infer<typeof remedyActSchema>

/** The topic of a remedy that was tried on a slip. */
export const triedTopic = (trouble: Trouble, does: RemedyAct): string => `tried.${trouble}.${does}`
