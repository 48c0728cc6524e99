/** What a device reports of itself when it is met. */
import { z } from 'zod'
import { modeSchema } from '../terms/device.ts'

/** How a device's last start went. */
export const startOutcomeSchema = z.enum(['normal', 'no-radio', 'loop', 'dead'])
export type StartOutcome = z.infer<typeof startOutcomeSchema>

/** What is burnt into a device: no write changes it. */
export const fusedSchema = z.object({
  model: z.string(),
  board: z.string(),
  chipset: z.string(),
  storageGb: z.int().positive(),
  region: z.string(),
  carrier: z.string(),
})
export type Fused = z.infer<typeof fusedSchema>

export const deviceFactsSchema = z.object({
  ...fusedSchema.shape,
  serial: z.string(),
  mode: modeSchema,
  build: z.exactOptional(z.string()),
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
