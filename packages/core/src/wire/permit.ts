/**
 * A permit of a maker's: that one device may run its service software. Bound to the device by its fused id, for
 * one thing, until a day, and once. Reads nothing; gives the schema. Who grants and signs it is the maker.
 */
import { z } from 'zod'

const word = z.string().min(1).max(64)

export const permitSchema = z
  .object({
    id: word,
    device: word,
    scope: z.literal('service'),
    until: z.iso.date(),
  })
  .readonly()
export type Permit = z.infer<typeof permitSchema>

/** Whether two permits say the same (there is one scope so far): only what its maker granted is one. */
export const isSamePermit = (a: Permit, b: Permit): boolean =>
  a.id === b.id && a.device === b.device && a.until === b.until
