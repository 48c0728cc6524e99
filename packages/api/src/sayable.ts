/** What may be said of a slip: topics with their answers. */
import { ROLES, STAGES } from '@plain-slate/core'
import { z } from 'zod'
import { lineSchema } from './job-shapes.ts'

/** One thing that may be said on a slip, and with what. */
export const sayableSchema = z.object({
  topic: z.string(),
  stage: z.enum(STAGES),
  group: z.string(),
  /** What it may be answered with; none: a short text. */
  answers: z.array(z.string()),
  /** A day, as an ISO date, is an answer too. */
  day: z.boolean(),
  /** A reason must stand beside it. */
  reason: z.boolean(),
  /** The least role whose word this is. */
  least: z.enum(ROLES),
  /** The family's own name of the thing, where it is one of its own. */
  name: z.string().nullable(),
  /** The route of this interface that lists its answers, where they hang on the shelf. */
  listedBy: z.string().nullable(),
  /** What stands of it now; null: nobody said it, or it was taken back. */
  stands: lineSchema.nullable(),
})
