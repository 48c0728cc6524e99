/** A mode as people are told of it: code knows its kind, its family names it. */
import { modeKindSchema, modeSchema } from '@plain-slate/core'
import { z } from 'zod'

export const modeShownSchema = z.object({
  id: modeSchema,
  /** As it stands in a sentence; the id where no family here knows the mode. */
  name: z.string(),
  kind: modeKindSchema.nullable(),
})
export type ModeShown = z.infer<typeof modeShownSchema>
