/** A look at a device: a job that an agent does, whose end is news. */
import { z } from 'zod'
import { errorSchema } from './error.ts'

export const lookSchema = z.object({
  id: z.string(),
  port: z.string(),
  /** Into a mode that shows more and back, where the device is in another. */
  deep: z.boolean(),
  at: z.iso.datetime({ precision: 3 }),
  state: z.enum(['looking', 'found', 'failed']),
  found: z.object({ serial: z.string(), digests: z.int(), table: z.boolean() }).nullable(),
  /** Why it failed, as a refusal is told. */
  trouble: errorSchema.nullable(),
})
export type LookShown = z.infer<typeof lookSchema>
