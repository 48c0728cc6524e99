/** What a device reports of itself when it is met. */
import { z } from 'zod'
import { modeSchema } from '../terms/device.ts'
import { isLegible, shownLegible } from '../terms/text.ts'

/** How a device's last start went. */
export const startOutcomeSchema = z.enum(['normal', 'no-radio', 'loop', 'dead'])
export type StartOutcome = z.infer<typeof startOutcomeSchema>

/** Characters of a fact at most: what is longer is no fact. */
const FACT_MOST = 120
/**
 * What a device says in words. One odd character of one device must hurt no other: it is shown as odd, and
 * then equals nothing that is asked of it.
 */
const word = z.string().max(FACT_MOST).overwrite(shownLegible)
/** The id by which devices are told apart is legible, or the device is not met at all. */
const serial = z
  .string()
  .max(FACT_MOST)
  .refine((text) => isLegible(text) && !/\s/u.test(text), 'a serial number that is no text')

/** What is burnt into a device: no write changes it. */
export const fusedSchema = z.object({
  model: word,
  board: word,
  chipset: word,
  storageGb: z.int().positive(),
  region: word,
  carrier: word,
})
export type Fused = z.infer<typeof fusedSchema>

export const deviceFactsSchema = z.object({
  ...fusedSchema.shape,
  serial,
  mode: modeSchema,
  build: z.exactOptional(word),
  release: z.exactOptional(z.int()),
  patchDate: z.exactOptional(z.iso.date()),
  loaderVersion: z.int(),
  floor: z.int(),
  bootLock: z.enum(['closed', 'open']),
  /** Whole percent. */
  batteryPercent: z.int().min(0).max(100),
  outcome: startOutcomeSchema,
  /** How often it came back by itself since its last start, where the start loops. */
  returns: z.int().nonnegative(),
  /** The declared size scale: 1 for a device at real size. */
  scale: z.int().positive(),
})
export type DeviceFacts = z.infer<typeof deviceFactsSchema>
