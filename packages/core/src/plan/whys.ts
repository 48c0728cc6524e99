/** What steps make of the customer's data beside what their packages do: the lock turned, a reset. Gives why. */
import { lockChange } from '../effect/effect.ts'
import type { Family } from '../family/profile.ts'
import type { FateWhy } from '../match/rules/data-fate.ts'
import type { StepBody } from './step.ts'

export const whysOf = (family: Family, steps: readonly StepBody[]): readonly FateWhy[] =>
  steps.flatMap((step): readonly FateWhy[] => {
    if (step.kind === 'by-hand') return step.what === 'reset' ? ['reset'] : []
    if (step.kind !== 'lock' || lockChange(family, step.to, step.model) === 'keeps') return []
    return [step.to === 'open' ? 'opened' : 'lock']
  })
