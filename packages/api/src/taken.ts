/** A plan that was taken: what changed since, what it was decided with, and whether that comes to the same again. */
import { z } from 'zod'
import { planSchema } from './runs.ts'

const moment = z.iso.datetime({ precision: 3 })
export const changeSchema = z.object({ what: z.string(), from: z.string(), to: z.string() })
export const takenSchema = z.object({
  at: moment,
  by: z.string().nullable(),
  package: z.string(),
  digest: z.string(),
  shown: planSchema,
  /** What changed since, where the plan no longer holds; null: it holds. */
  changes: z.array(changeSchema).nullable(),
  /** What it was decided with, and whether it comes of that again; null: nothing was kept. */
  decided: z
    .object({
      decision: z.string(),
      family: z.object({ id: z.string(), version: z.int() }),
      packages: z.int(),
      readings: z.int(),
      was: z.string(),
      now: z.string().nullable(),
      same: z.boolean(),
    })
    .nullable(),
})
export type TakenShown = z.infer<typeof takenSchema>
