/** A slip whose run lives stays as it is: the refusal of whatever would end or change it meanwhile. */
import type { RunRow } from '../tables/runs.ts'
import type { Refusal } from './refusal.ts'

/** Said with where the run stands. */
export const livesRefusal = (number: string, { port, shown, steps }: RunRow): Refusal => ({
  code: 'slip.run-lives',
  facts: { number, port, step: stepNow(shown?.next ?? 0, steps), steps: steps.length },
})
const stepNow = (next: number, steps: RunRow['steps']): number =>
  steps.findLast(({ firstCommand }) => firstCommand <= next)?.number ?? 1
