/** The way of a device from one mode to another, leg by leg, as hands go it. */
import { HAND_DOES, LEAVE_ITEMS, outlineSchema } from '@plain-slate/core'
import { z } from 'zod'
import { modeShownSchema } from './mode.ts'

const moment = z.iso.datetime({ precision: 3 })
const handAct = z.object({
  do: z.enum(HAND_DOES),
  /** Names of keys, and their ids on the outline. */
  keys: z.array(z.object({ id: z.string(), name: z.string() })),
  /** How long it takes, from and to. */
  seconds: z.tuple([z.number(), z.number()]).nullable(),
  /** The device's own cue. */
  until: z.string().nullable(),
  /** The most that may pass since the act before; seconds. */
  within: z.number().nullable(),
  say: z.string().nullable(),
})
export type HandActShown = z.infer<typeof handAct>

export const legSchema = z.object({
  from: modeShownSchema,
  to: modeShownSchema,
  how: z.enum(['chord', 'keys', 'cell', 'command', 'menu', 'self']),
  hands: z.boolean(),
  seconds: z.number(),
  permitted: z.boolean(),
  say: z.string(),
  acts: z.array(handAct),
  hurdle: z.string().nullable(),
  /** Of a menu: its lines under each loader, with the presses to the one that is wanted. */
  menus: z.array(
    z.object({
      upToLoader: z.int().nullable(),
      presses: z.int(),
      lines: z.array(z.object({ name: z.string(), danger: z.boolean() })),
    }),
  ),
  /** It goes through a start of the system; whether that may raise a floor. */
  starts: z.boolean(),
  raises: z.boolean(),
  looks: z.string(),
  alike: z.array(z.object({ mode: modeShownSchema, looks: z.string(), tell: z.string() })),
  slip: z
    .object({
      say: z.string(),
      leads: modeShownSchema,
      /** Ways back to where the leg begins; null: nobody knows one. */
      back: z.array(z.string()).nullable(),
    })
    .nullable(),
})
export type LegShown = z.infer<typeof legSchema>

/** What must be done before it leaves its running system, and whether it is. */
export const leaveSchema = z.object({
  /** The name of the mode that it would leave. */
  mode: z.string(),
  items: z.array(
    z.object({
      item: z.enum(LEAVE_ITEMS),
      /** What people say of it; null: the system sees it by itself. */
      topic: z.string().nullable(),
      answers: z.array(z.string()),
      answer: z.string().nullable(),
      holds: z.boolean(),
      facts: z.record(z.string(), z.union([z.string(), z.number()])),
      by: z.string().nullable(),
      at: moment.nullable(),
    }),
  ),
  /** How many stand in the way of a leg; none where somebody waived them. */
  open: z.int(),
  waived: z
    .object({ by: z.string().nullable(), at: moment, note: z.string().nullable() })
    .nullable(),
})
export type LeaveShown = z.infer<typeof leaveSchema>

export const waySchema = z.object({
  /** Null: nobody knows where it is. */
  from: modeShownSchema.nullable(),
  /** The link says so itself. */
  seen: z.boolean(),
  to: modeShownSchema,
  /** What its modes look like, for whoever has it in front of them. */
  shows: z.array(z.object({ mode: modeShownSchema, looks: z.string() })),
  outline: outlineSchema,
  /** Null: no way leads there. */
  legs: z.array(legSchema).nullable(),
  /** Tries that missed since the last that arrived. */
  missed: z.int(),
  permission: z.string(),
  permissionSteps: z.array(z.string()),
  /** What comes before the first leg; null: nothing, or that leg does not leave the system. */
  first: leaveSchema.nullable(),
  /** Where it does not charge: percent a minute that it loses there, and what is in it now; null: it charges there. */
  drains: z.object({ perMinute: z.number(), here: z.int().nullable() }).nullable(),
  /** The driver that the computer lacks there: it would not be heard; null: it is, or nobody tells. */
  unheard: z.string().nullable(),
})
export type WayShown = z.infer<typeof waySchema>
