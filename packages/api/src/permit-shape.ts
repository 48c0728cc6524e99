/** A permit of a maker's as a page shows it. */
import { z } from 'zod'

/** `signed`: what its file says; null: a lead typed it. Days are ISO dates. */
export const permitShownSchema = z.object({
  id: z.string(),
  device: z.string(),
  scope: z.string(),
  until: z.string(),
  signed: z
    .object({
      maker: z.string(),
      /** The key of the trust store that signed it, by its name. */
      key: z.string(),
      from: z.string(),
      packages: z.array(z.string()),
    })
    .nullable(),
})
