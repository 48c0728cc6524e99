/**
 * A permit of a maker's, as a device takes it: that one device may take what the permit is for. Bound to the device by
 * its fused id, of one kind, until a day, and once. Reads nothing; gives the schema. Who grants and signs it is the maker.
 */
import { z } from 'zod'
import { permitWordSchema } from '../terms/permit-word.ts'

export const permitSchema = z
  .object({
    id: permitWordSchema,
    device: permitWordSchema,
    /** What it is for: service software, or what a package asks for by `permitKind`. */
    scope: permitWordSchema,
    until: z.iso.date(),
  })
  .readonly()
export type Permit = z.infer<typeof permitSchema>

/** Whether two permits say the same: only what its maker granted is one. */
export const isSamePermit = (a: Permit, b: Permit): boolean =>
  a.id === b.id && a.device === b.device && a.scope === b.scope && a.until === b.until

/** What a device is given of a permit, of whatever else is known of it. */
export const wirePermit = ({ id, device, scope, until }: Permit): Permit => ({
  id,
  device,
  scope,
  until,
})
