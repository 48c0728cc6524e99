/** What every command shares: how it speaks and what it answers. */
import { speaker } from '@plain-slate/texts'

export const say = speaker('en-GB')

/** What to print, and the exit code: 0 good, 1 found wrong, 2 cannot. */
export type Outcome = { readonly code: 0 | 1 | 2; readonly text: string; readonly json: object }
