/** Readings as a file holds them: of a device that is not here. Reads JSON; gives the schema that parses it. */
import { z } from 'zod'
import { factSchema, sourceSchema } from '../terms/device.ts'

/** Far more than are read of any device. */
export const READINGS_MOST = 200
export const readingSchema = z.object({
  fact: factSchema,
  value: z.union([z.string().min(1).max(80), z.number()]),
  source: sourceSchema,
  /** When it was read; left out: now. One that lies ahead is read as of now. */
  at: z.exactOptional(z.iso.datetime({ offset: true })),
})
export const readingsFileSchema = z.object({
  format: z.literal('plain-slate/readings@1'),
  readings: z.array(readingSchema).min(1).max(READINGS_MOST),
})
