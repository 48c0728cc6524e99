/** Texts that people give, as the contract takes them. */
import { z } from 'zod'

/** Anything that begins a new line, and tabs: in a field of one line each is a space. */
const BREAKS = /[\t\n\v\f\r\u0085\u2028\u2029]+/g

/** A text of one line, without space around it, of at most so many characters. */
export const oneLine = (most: number) =>
  z
    .string()
    .overwrite((text) => text.replaceAll(BREAKS, ' '))
    .trim()
    .max(most)
