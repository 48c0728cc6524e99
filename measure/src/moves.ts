/** Every field of every profile moves a claim: all that lists repeat too, of which the test command holds a few of each. */
import type { Row } from './row.ts'
import { sweep } from './sweep.ts'

export function moves(): Promise<readonly Row[]> {
  const { holds, minutes } = sweep('packages/core/src/rehearsal/moves.test.ts', {
    MOVES_EACH: '1000',
  })
  return Promise.resolve([
    {
      what: 'every value of three profiles changed alone, lists to their end',
      measured: holds ? `each moves a claim (${minutes} min)` : 'one moves nothing: see above',
      limit: 'each moves a claim, or nothing else may stand there',
    },
  ])
}
