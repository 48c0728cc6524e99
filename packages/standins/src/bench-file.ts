/** What the bench process is told at its start: one JSON file that the start command writes. */
import { readFileSync } from 'node:fs'
import { familySchema, imageFactsSchema, permitSchema } from '@plain-slate/core'
import { z } from 'zod'

export const benchFileSchema = z.object({
  format: z.literal('plain-slate/stand-in-bench@1'),
  pace: z.number().nonnegative(),
  ports: z.record(z.string(), z.int().nonnegative()),
  families: z.array(familySchema),
  images: z.array(imageFactsSchema),
  permits: z.array(permitSchema).default([]),
  /** Files of the computers, with the ports that each has; of the last all that are left. */
  computers: z
    .array(z.object({ file: z.string().min(1), ports: z.array(z.string()) }))
    .min(1)
    .default([{ file: 'computer.json', ports: [] }]),
})
export type BenchFile = z.infer<typeof benchFileSchema>

/** Reads the file. Throws ZodError or SyntaxError for one that is none. */
export const readBenchFile = (path: string): BenchFile =>
  benchFileSchema.parse(JSON.parse(readFileSync(path, 'utf8')))
