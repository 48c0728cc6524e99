/** The house rules: what was decided, who decided it when and why, and deciding anew. */
import { houseSchema, leastOf } from '@plain-slate/core'
import { z } from 'zod'
import { oneLine } from './line.ts'
import { route } from './route.ts'

const moment = z.iso.datetime({ precision: 3 })

export const houseChangeSchema = z.object({
  version: z.int(),
  at: moment,
  by: z.string().nullable(),
  reason: z.string(),
  /** Names of the settings that it changed. */
  changed: z.array(z.string()),
})
export const houseShownSchema = z.object({
  /** 0: nobody has decided anything yet. */
  version: z.int(),
  rules: houseSchema,
  /** The newest first. */
  history: z.array(houseChangeSchema),
})
export type HouseShown = z.infer<typeof houseShownSchema>

export const houseRoutes = {
  house: route({
    method: 'get',
    path: '/api/house',
    needs: leastOf('slip.read'),
    summary: 'The house rules, and how they came about',
    answer: houseShownSchema,
  }),
  houseChange: route({
    method: 'post',
    path: '/api/house',
    needs: leastOf('house.change'),
    summary: 'Decide a house rule anew, with a reason',
    body: z.object({
      /** The version that was seen: where another stands, nothing is changed. */
      version: z.int().nonnegative(),
      rules: houseSchema,
      reason: oneLine(300).min(1),
    }),
    answer: houseShownSchema,
  }),
}
