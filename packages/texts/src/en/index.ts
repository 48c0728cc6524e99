/** The house's own language, British English, put together from its rooms. */
import { bench } from './bench.ts'
import { book } from './book.ts'
import { carry } from './carry.ts'
import { command } from './command.ts'
import { compare } from './compare.ts'
import { dues } from './dues.ts'
import { errors } from './errors.ts'
import { layingErrors } from './laying-errors.ts'
import { runErrors } from './run-errors.ts'
import { runHolds } from './run-holds.ts'
import { families } from './families.ts'
import { fit, fitUnread } from './fit.ts'
import { frame } from './frame.ts'
import { job } from './job.ts'
import { knowing } from './knowing.ts'
import { order } from './order.ts'
import { otherwise } from './otherwise.ts'
import { papers } from './papers.ts'
import { people } from './people.ts'
import { pictures } from './pictures.ts'
import { places } from './places.ts'
import { remedies } from './remedies.ts'
import { refused } from './refused.ts'
import { runs } from './runs.ts'
import { shelf } from './shelf.ts'
import { slips } from './slips.ts'
import { stages } from './stages.ts'
import { terms } from './terms.ts'
import { trial } from './trial.ts'
import { whatIf } from './what-if.ts'
import { work } from './work.ts'

export const en = {
  ...terms,
  ...frame,
  ...places,
  ...papers,
  ...people,
  ...slips,
  ...book,
  ...errors,
  ...layingErrors,
  ...runErrors,
  ...runHolds,
  ...carry,
  ...command,
  ...fit,
  ...fitUnread,
  ...bench,
  ...refused,
  ...runs,
  ...remedies,
  ...order,
  ...otherwise,
  ...shelf,
  ...job,
  ...stages,
  ...compare,
  ...knowing,
  ...families,
  ...trial,
  ...pictures,
  ...whatIf,
  ...work,
  ...dues,
} as const
