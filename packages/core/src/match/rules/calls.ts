/**
 * Emergency calls: a row may not be certified for them where the device will be used. Of the row that it is of after the
 * package; here, in what regions the house may operate radio. Nobody tries such a call: it is said.
 */
import { rowAfter, usedIn } from '../adoption.ts'
import { rule } from '../rule.ts'
import { TARGET_FACTS } from '../targets.ts'

export const calls = rule({
  id: 'promise.calls',
  overruled: 'anyone',
  needs: ['region', 'carrier'],
  sees: TARGET_FACTS,
  reads: ['intent', 'keepData', 'house', 'lines'],
  says: { uncertified: ['fits-if', 'row', 'region'] },
  concerns: ({ family }) => family.variants.some((row) => row.uncertifiedIn !== undefined),
  check: (row, at) => {
    const to = rowAfter(at, row)
    const own = at.family.variants.find(
      (row) => row.region === to.region && row.carrier === to.carrier,
    )
    const used = usedIn(at)
    const where = used === undefined ? at.house.lawfulRegions : [used]
    const not = where.filter((one) => own?.uncertifiedIn?.includes(one) === true)
    return not.length === 0
      ? undefined
      : {
          say: 'uncertified',
          facts: { row: `${to.region ?? ''}/${to.carrier ?? ''}`, region: not.join(', ') },
        }
  },
})
