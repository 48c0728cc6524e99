/**
 * What a computer of a bench tells of itself: drivers that are installed, programs that hold its ports, what it saves
 * power on, when it goes to sleep. A probe of that machine keeps it in a file; whoever runs the agent says which.
 */
import { z } from 'zod'

export const COMPUTER_FORMAT = 'plain-slate/computer@1'
const port = z.string().min(1).max(12)

export const computerSchema = z.object({
  /** By the id by which families name them; versions as they are counted there. */
  drivers: z
    .array(z.object({ id: z.string().min(1).max(40), version: z.int().positive() }))
    .max(60),
  rivals: z.array(z.object({ port, program: z.string().min(1).max(60) })).max(60),
  /** Ports that are put to sleep when nothing moves on them. */
  powerSaving: z.array(port).max(60),
  /** Ports behind which a hub lies: what hangs there answers one at a time. */
  hubs: z.array(port).max(60).default([]),
  /** Minutes after which it sleeps when nobody touches it; null: never. */
  sleepMinutes: z.int().positive().max(10_000).nullable(),
})
export type Computer = z.infer<typeof computerSchema>

export const computerFileSchema = computerSchema.extend({ format: z.literal(COMPUTER_FORMAT) })

/** The same with what an agent sees by itself; `probe`: null where nobody tells of the machine. */
export const benchComputerSchema = z.object({
  /** The agent's own version. */
  version: z.string().min(1).max(40),
  /** MiB that are free where it keeps its journals. */
  freeMiB: z.int().nonnegative(),
  probe: computerSchema.nullable(),
  /** What its bench is called, where a shop has more than one. */
  bench: z.string().min(1).max(24).nullable().default(null),
})
export type BenchComputer = z.infer<typeof benchComputerSchema>
