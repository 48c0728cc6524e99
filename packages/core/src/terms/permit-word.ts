/** The words of a maker's permit. */
import { z } from 'zod'

/** Ids and kinds of a permit have no blanks: they stand in one line beside each other. */
export const permitWordSchema = z
  .string()
  .min(1)
  .max(64)
  .regex(/^[!-~]+$/, 'letters, digits and signs without blanks')
