/** JSON objects of any content, as they leave the server. */
import type { Json } from '@plain-slate/core'
import { z } from 'zod'

/** Members are not looked into: what leaves was checked when it was entered. */
export const factsSchema = z.record(z.string(), z.unknown()) as unknown as z.ZodType<
  Record<string, Json>
>

/** Any JSON: the same, of any shape. Whoever takes it up parses it by its own schema. */
export const anyJson = z.unknown() as unknown as z.ZodType<Json>
