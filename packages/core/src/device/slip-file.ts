/**
 * A slip as one file, to go to another shop and come from one: its head, what was said and what was read. Reads a text;
 * gives the file, or the first thing that is wrong with it. A foreign reading is what an earlier slip told, whatever
 * its source was there: nobody here saw it.
 */
import { z } from 'zod'
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'
import { factSchema, modeSchema, sourceSchema } from '../terms/device.ts'
import { INTENTS } from '../terms/slip.ts'

export const SLIP_FILE = 'plain-slate/slip@1'
/** Bytes and depth of a file at most; more is none of ours. */
export const SLIP_FILE_BYTES = 512 * 1024
export const SLIP_FILE_DEPTH = 6
const LINES_MOST = 1000
const READINGS_MOST = 2000

const legible = (most: number) =>
  z
    .string()
    .max(most)
    // eslint-disable-next-line no-control-regex -- they are what is refused
    .regex(/^[^\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]*$/, 'no control characters')
const moment = z.iso.datetime({ precision: 3 })

export const slipFileSchema = z.object({
  format: z.literal(SLIP_FILE),
  /** Its number where it comes from, and what that shop is called. */
  number: legible(12),
  shop: legible(120),
  device: legible(120),
  model: legible(60).nullable(),
  intent: z.enum(INTENTS),
  promise: legible(200),
  due: moment.nullable(),
  /** Personal texts; null: the file goes without them. */
  customer: legible(120).nullable(),
  words: legible(2000).nullable(),
  lines: z
    .array(
      z.object({
        topic: legible(60),
        answer: legible(1200),
        note: legible(2000).nullable(),
        by: legible(80).nullable(),
        at: moment,
      }),
    )
    .max(LINES_MOST),
  readings: z
    .array(
      z.object({
        fact: factSchema,
        value: z.union([legible(120), z.number()]),
        source: sourceSchema,
        mode: modeSchema.nullable(),
        by: legible(80).nullable(),
        at: moment,
      }),
    )
    .max(READINGS_MOST),
})
export type SlipFile = z.infer<typeof slipFileSchema>

export type NoSlipFile =
  | { readonly why: 'large' | 'json' | 'deep' }
  | { readonly why: 'format'; readonly format: string }
  | { readonly why: 'shape'; readonly path: string; readonly problem: string }

export function readSlipFile(text: string): Result<SlipFile, NoSlipFile> {
  if (new TextEncoder().encode(text).length > SLIP_FILE_BYTES) return refuse({ why: 'large' })
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch {
    return refuse({ why: 'json' })
  }
  if (isDeeper(raw, SLIP_FILE_DEPTH)) return refuse({ why: 'deep' })
  const format = z.object({ format: z.string() }).safeParse(raw)
  if (format.success && format.data.format !== SLIP_FILE)
    return refuse({ why: 'format', format: format.data.format.slice(0, 60) })
  const parsed = slipFileSchema.safeParse(raw)
  if (parsed.success) return ok(parsed.data)
  const [issue] = parsed.error.issues
  return refuse({ why: 'shape', path: issue?.path.join('.') ?? '', problem: issue?.message ?? '' })
}

/** Whether a value nests deeper than this. */
function isDeeper(value: unknown, left: number): boolean {
  if (typeof value !== 'object' || value === null) return false
  return left === 0 || Object.values(value).some((one) => isDeeper(one, left - 1))
}

/** Its readings as they count here: what an earlier slip told. */
export const readingsFrom = ({
  readings,
}: SlipFile): readonly Pick<
  SlipFile['readings'][number],
  'fact' | 'value' | 'source' | 'mode' | 'at'
>[] => readings.map(({ fact, value, mode, at }) => ({ fact, value, mode, at, source: 'earlier' }))
