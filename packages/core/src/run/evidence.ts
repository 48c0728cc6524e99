/**
 * What shows that a command of a run was carried out: what the device said, what was found on it, a person's
 * word. Reads nothing; gives the schema. A journal of before kept a plain text: that is read as a word.
 */
import { z } from 'zod'
import { digestSchema } from '../book/entry.ts'
import { modeSchema } from '../terms/device.ts'

const text = z.string()
const shown = <Is extends string, More extends z.ZodRawShape>(is: Is, more: More) =>
  z.object({ is: z.literal(is), ...more }).readonly()

const kinds = z.discriminatedUnion('is', [
  /** The device said that it keeps it, that it did it, that it is in a mode. */
  shown('kept', {}),
  shown('done', {}),
  shown('mode', { mode: modeSchema }),
  /** It was told to start, and nobody can hear it before somebody went through its set-up. */
  shown('told', {}),
  /** It was met: by its ids. */
  shown('met', { serial: text, mode: modeSchema }),
  shown('promised', { build: text }),
  /** Its own digest is the wanted one. */
  shown('digest', { sha256: digestSchema }),
  shown('table', {}),
  shown('items', { items: z.int().nonnegative() }),
  /** After a loss it was found so, and nothing was sent again. */
  shown('found', { as: text }),
  shown('person', { by: text }),
  shown('word', { text }),
])
export type RunEvidence = z.infer<typeof kinds>

export const evidenceSchema = z.preprocess(
  (raw) => (typeof raw === 'string' ? { is: 'word', text: raw } : raw),
  kinds,
)
