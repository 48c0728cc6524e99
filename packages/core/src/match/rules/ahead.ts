/**
 * It was published by now: nothing is given out on a day that has not come, so whoever wrote its manifest, or this machine's
 * clock, is wrong. A patch level may bear a day of the next month.
 */
import { isAhead } from '../../units/patch-level.ts'
import { rule } from '../rule.ts'

export const ahead = rule({
  id: 'package.ahead',
  overruled: 'lead',
  reads: ['today'],
  says: { published: ['does-not-fit', 'date', 'today'], level: ['does-not-fit', 'date', 'today'] },
  concerns: ({ today }) => today !== undefined,
  check: (_, { today = '', shelved: { manifest } }) => {
    const { published, patchDate } = manifest
    if (published.date > today) return { say: 'published', facts: { date: published.date, today } }
    return isAhead(patchDate, today)
      ? { say: 'level', facts: { date: patchDate, today } }
      : undefined
  },
})
