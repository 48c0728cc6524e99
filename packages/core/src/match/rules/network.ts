/** A change of variant opens no network lock: with another carrier's card it may stay shut. */
import { adoptionOf } from '../adoption.ts'
import { rule } from '../rule.ts'

export const network = rule({
  id: 'promise.network',
  overruled: 'anyone',
  needs: ['region', 'carrier'],
  reads: ['intent', 'keepData', 'house', 'lines'],
  says: { stays: ['fits-if', 'carrier'] },
  concerns: ({ intent }) => intent === 'variant-change',
  check: ({ region, carrier }, at) =>
    adoptionOf(at, { region, carrier }) === undefined
      ? undefined
      : { say: 'stays', facts: { carrier } },
})
