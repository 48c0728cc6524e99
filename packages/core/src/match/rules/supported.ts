/** Its maker still supports it, and for how long: what is said to be the last is called that. */
import { rule } from '../rule.ts'

/** Days before the end from which on it is said. */
const SOON_DAYS = 180
const DAY_MS = 86_400_000

export const supported = rule({
  id: 'package.supported',
  overruled: 'anyone',
  asks: ['today'],
  says: { fits: ['fits', 'until'], ends: ['fits-if', 'until'], over: ['fits-if', 'until'] },
  concerns: ({ shelved }) => shelved.manifest.supportedUntil !== undefined,
  check: (_, { today, shelved }) => {
    const until = shelved.manifest.supportedUntil ?? ''
    const days = (Date.parse(until) - Date.parse(today)) / DAY_MS
    if (days < 0) return { say: 'over', facts: { until } }
    return { say: days < SOON_DAYS ? 'ends' : 'fits', facts: { until } }
  },
})
