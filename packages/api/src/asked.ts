/** What is asked of one device, and how that device is named. */
import { READINGS_MOST, readingSchema } from '@plain-slate/core'
import { z } from 'zod'
import { intentSchema } from './error.ts'
import { slipNumberSchema } from './slips.ts'

/** Of which device: at a port, of a slip, or one that is known by readings alone. */
const sources = {
  port: z.exactOptional(z.string().min(1).max(12)),
  slip: z.exactOptional(slipNumberSchema),
  readings: z.exactOptional(z.array(readingSchema).min(1).max(READINGS_MOST)),
  intent: intentSchema.default('update'),
  keepData: z.boolean().default(true),
}
const isOne = (from: { port?: unknown; slip?: unknown; readings?: unknown }) =>
  [from.port, from.slip, from.readings].filter((one) => one !== undefined).length === 1
const ONE = { error: 'one of port, slip and readings' }
/** What is asked of one device. On a slip the wish is the slip's own. */
export const askedOf = z.object(sources).refine(isOne, ONE)
/** A plan of a package, or of a route by its name. */
export const planAsked = z
  .object({ ...sources, package: z.string().min(1).max(1200) })
  .refine(isOne, ONE)
