/** A change of variant opens no network lock: with another carrier's card it may stay shut. */
import { adoptionOf } from '../adoption.ts'
import { rule } from '../rule.ts'
import { TARGET_FACTS } from '../targets.ts'

export const network = rule({
  id: 'promise.network',
  overruled: 'anyone',
  needs: ['region', 'carrier'],
  sees: TARGET_FACTS,
  reads: ['intent', 'keepData', 'house', 'lines'],
  says: { stays: ['fits-if', 'carrier'] },
  concerns: ({ intent }) => intent === 'variant-change',
  check: (row, at) =>
    adoptionOf(at, row) === undefined
      ? undefined
      : { say: 'stays', facts: { carrier: row.carrier } },
})
