/**
 * What hands do with a device of a family: where its keys are, what is held and for how long, what its menus ask.
 * Reads nothing; gives the schemas. A way's sentence says it whole; these say it act by act.
 */
import { z } from 'zod'
import { modeSchema } from '../terms/device.ts'

const text = z.string().min(1).max(200)
const id = z
  .string()
  .max(24)
  .regex(/^[a-z][a-z0-9-]*$/, 'small letters, digits and dashes')
const share = z.number().min(0).max(1)

export const SIDES = ['left', 'right', 'top', 'bottom'] as const

/** The device as a line drawing: its proportions, its keys along its sides, where the cable goes in. */
export const outlineSchema = z.object({
  wide: z.number().positive().max(1000),
  high: z.number().positive().max(1000),
  /** `from`, `to`: along its side, from the top or the left, as shares of it. */
  keys: z
    .array(z.object({ id, name: text, side: z.enum(SIDES), from: share, to: share }))
    .min(1)
    .max(12),
  port: z.object({ side: z.enum(SIDES), at: share }),
})
export type Outline = z.infer<typeof outlineSchema>

/**
 * One thing that hands do. *hold* keeps its keys down until they are let go; *wait* lasts until the device gives its
 * cue. `seconds`: how long that takes, from and to; `within`: the most that may pass since what was done before.
 */
export const HAND_DOES = [
  'press',
  'hold',
  'let-go',
  'wait',
  'cable-in',
  'cable-out',
  'cell-in',
  'cell-out',
  'enter',
] as const
export const handActSchema = z.object({
  do: z.enum(HAND_DOES),
  keys: z.exactOptional(z.array(id).min(1)),
  seconds: z.exactOptional(z.tuple([z.number().positive(), z.number().positive()])),
  /** The device's own cue: "the second buzz". */
  until: z.exactOptional(text),
  within: z.exactOptional(z.number().positive()),
  /** What is entered, or done, where the word for it is not enough. */
  say: z.exactOptional(text),
})
export type HandAct = z.infer<typeof handActSchema>

/** The usual slip on a way, and the mode that it ends in. */
export const usualSlipSchema = z.object({ say: text, leads: modeSchema })

/** What stands between the keys and the mode: a warning to be answered, a number read out, a phrase. */
export const hurdleSchema = z.object({ kind: z.enum(['warning', 'number', 'phrase']), say: text })

/**
 * A menu: the cursor stands on its first line, a press goes one line on. `say` is its sentence, with {presses} and
 * {line} in it. `orders`: its lines under an older loader, up to that version.
 */
export const menuSchema = z.object({
  key: id,
  takes: id,
  say: text.regex(/\{presses\}/, 'a sentence with {presses}').regex(/\{line\}/, 'and {line}'),
  /** What is said of no press, of one, of two, and so on. */
  presses: z.array(text).min(2),
  lines: z
    .array(z.object({ id, name: text, danger: z.exactOptional(z.literal(true)) }))
    .min(2)
    .max(12),
  orders: z.array(z.object({ upToLoader: z.int().nonnegative(), lines: z.array(id).min(2) })),
})
export type Menu = z.infer<typeof menuSchema>
