/** What a command cannot do, in a sentence. */
import type { Outcome } from './outcome.ts'

/** Something that cannot be done, with its sentence. Caught once, where a command ends. */
export class Cannot extends Error {}

export const cannot = (text: string): Outcome => ({ code: 2, text, json: { error: text } })
