/** What a device reports of itself when it is met. */
import { z } from 'zod'
import { modeSchema } from '../terms/device.ts'

/** How a device's last start went. */
export const startOutcomeSchema = z.enum(['normal', 'no-radio', 'loop', 'dead'])
export type StartOutcome = z.infer<typeof startOutcomeSchema>

export const deviceFactsSchema = z.object({
  serial: z.string(),
  mode: modeSchema,
  build: z.union([z.string(), z.undefined()]),
  release: z.union([z.int(), z.undefined()]),
  loaderVersion: z.int(),
  floor: z.int(),
  outcome: startOutcomeSchema,
})
export type DeviceFacts = z.infer<typeof deviceFactsSchema>
