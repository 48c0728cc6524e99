/**
 * Rehearsal and run on many more seeded plans than the test command has time for: `AGREES_PLANS=n` tries another
 * number than ten thousand, which take the better part of an hour.
 */
import type { Row } from './row.ts'
import { sweep } from './sweep.ts'

const PLANS = process.env['AGREES_PLANS'] ?? '10000'

export function agrees(): Promise<readonly Row[]> {
  const { holds, minutes } = sweep('e2e/agrees', { AGREES_PLANS: PLANS })
  const plans = Number(PLANS).toLocaleString('en')
  return Promise.resolve([
    {
      what: `${plans} seeded plans of three families, rehearsed and run with seeded cuts`,
      measured: holds ? `all agree (${minutes} min)` : 'one does not: see above',
      limit: 'all agree',
    },
  ])
}
