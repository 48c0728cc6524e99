/**
 * The journal of a run: what was intended before it was sent, and what was seen done. One pair per
 * begin-to-finish of a piece and per other command; acts of people are entries of their own pair too.
 * From the journal alone a run is taken up again. `at` is the device's own time as it was last told, ms of
 * model time: put down by whoever drives, and never read by the engine.
 */
import { z } from 'zod'
import { evidenceSchema } from './evidence.ts'

export const journalEntrySchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('intend'),
    /** The command's place in the run, from 0. */
    command: z.int().nonnegative(),
    epoch: z.int().nonnegative(),
    at: z.exactOptional(z.number().nonnegative()),
  }),
  z.object({
    kind: z.literal('done'),
    command: z.int().nonnegative(),
    /** What shows it: a digest, a mode, a person's word. */
    evidence: evidenceSchema,
    at: z.exactOptional(z.number().nonnegative()),
  }),
])
export type JournalEntry = z.infer<typeof journalEntrySchema>

/** Where a journal leaves a run: the next command, and whether it is in doubt. */
export type Place = { readonly next: number; readonly inDoubt: boolean }

const BEGINNING: Place = { next: 0, inDoubt: false }

/** Where one more entry leaves a run; undefined: no run writes it there. */
function after({ next, inDoubt }: Place, entry: JournalEntry): Place | undefined {
  if (entry.command !== next) return undefined
  if (entry.kind === 'intend') return { next, inDoubt: true }
  return inDoubt ? { next: next + 1, inDoubt: false } : undefined
}

/**
 * Reads a journal as far as it is one that a run writes. `odd`: the place, from 0, of the first entry out
 * of turn, at which the reading ended; undefined: it could be followed to its end.
 */
export function followed(journal: readonly JournalEntry[]): Place & {
  readonly odd: number | undefined
} {
  let place = BEGINNING
  for (const [index, entry] of journal.entries()) {
    const then = after(place, entry)
    if (then === undefined) return { ...place, odd: index }
    place = then
  }
  return { ...place, odd: undefined }
}

/** Where a journal leaves a run. One with an entry out of turn is read up to there. */
export function placeOf(journal: readonly JournalEntry[]): Place {
  const { next, inDoubt } = followed(journal)
  return { next, inDoubt }
}
