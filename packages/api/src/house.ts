/** The house rules: what was decided, who decided it when and why, and deciding anew. */
import { COPY_FAULTS, houseSchema, leastOf } from '@plain-slate/core'
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

const copySchema = z.object({
  folder: z.string(),
  /** Real time: the shop's clock may be a demo's. */
  at: moment,
  /** Why it failed; null: it is whole. */
  why: z
    .object({
      fault: z.enum(COPY_FAULTS),
      facts: z.record(z.string(), z.union([z.string(), z.number()])),
    })
    .nullable(),
  mib: z.int(),
  entries: z.int(),
})
export const copiesShownSchema = z.object({
  /** Where a copy of the shop is made every night; null: nowhere. */
  folder: z.string().nullable(),
  last: copySchema.nullable(),
  /** The newest that came out whole. */
  good: copySchema.nullable(),
  trouble: z.enum(['none', 'failed', 'old']),
})
export type CopiesShown = z.infer<typeof copiesShownSchema>

export const houseRoutes = {
  copies: route({
    method: 'get',
    path: '/api/house/copies',
    needs: leastOf('slip.read'),
    summary: 'Copies of the shop: where they are made, and how they came out',
    answer: copiesShownSchema,
  }),
  copiesName: route({
    method: 'post',
    path: '/api/house/copies',
    needs: leastOf('house.change'),
    summary: 'Name the folder for copies of the shop, or none',
    body: z.object({ folder: z.string().trim().max(300) }),
    answer: copiesShownSchema,
  }),
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
