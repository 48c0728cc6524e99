/** The house's own language, British English, put together from its rooms. */
import { book } from './book.ts'
import { command } from './command.ts'
import { errors } from './errors.ts'
import { fit } from './fit.ts'
import { frame } from './frame.ts'
import { people } from './people.ts'
import { places } from './places.ts'
import { slips } from './slips.ts'
import { terms } from './terms.ts'

export const en = {
  ...terms,
  ...frame,
  ...places,
  ...people,
  ...slips,
  ...book,
  ...errors,
  ...command,
  ...fit,
} as const
