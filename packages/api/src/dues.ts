/** What is due on a slip on a later day. */
import { DUES } from '@plain-slate/core'
import { z } from 'zod'

/** `asked`: what ought to be put down, with the day that the figures suggest; null: only people know it. */
export const duesSchema = z.object({
  standing: z.array(z.object({ what: z.enum(DUES), on: z.string() })),
  asked: z.array(z.object({ what: z.enum(DUES), on: z.string().nullable() })),
})
