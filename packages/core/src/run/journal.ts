/**
 * The journal of a run: what was intended before it was sent, and what was seen done. One pair per
 * begin-to-finish of a piece and per other command; acts of people are entries of their own pair too.
 * From the journal alone a run is taken up again. `at` is the device's own time as it was last told, ms of
 * model time: put down by whoever drives, and never read by the engine.
 */
import { z } from 'zod'

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
    evidence: z.string(),
    at: z.exactOptional(z.number().nonnegative()),
  }),
])
export type JournalEntry = z.infer<typeof journalEntrySchema>

/** Where a journal leaves a run: the next command, and whether it is in doubt. */
export type Place = { readonly next: number; readonly inDoubt: boolean }

/** Reads a journal. Throws RangeError for one that no run writes: entries out of turn. */
export function placeOf(journal: readonly JournalEntry[]): Place {
  return journal.reduce<Place>(
    (place, entry) => {
      if (entry.command !== place.next)
        throw new RangeError(`entry of command ${entry.command}, ${place.next} was to come`)
      if (entry.kind === 'intend') return { next: place.next, inDoubt: true }
      if (!place.inDoubt) throw new RangeError(`command ${entry.command} done and never intended`)
      return { next: place.next + 1, inDoubt: false }
    },
    { next: 0, inDoubt: false },
  )
}
