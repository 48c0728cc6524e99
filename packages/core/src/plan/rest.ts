/**
 * What the rest of a run may still draw of a charge. Reads a plan, its family and where the run stands; gives whole percent.
 * What a plan asks at its beginning has the costliest step once more and a house's margin on top: a run that began with so
 * much never has less than this, however its steps went.
 */
import { effectOf } from '../effect/effect.ts'
import type { Family } from '../family/profile.ts'
import { drainOf } from '../pace/pace.ts'
import { untilInstalls } from './charge.ts'
import { effectsOf } from './folds.ts'
import type { Plan } from './plan.ts'

/**
 * Percent, from a step on (1: the first): each at its longest, and a restart as the way out of where that leaves it; no less
 * than what an install ahead asks for.
 */
export function restDraws(family: Family, plan: Plan, from: number): number {
  const drains = effectsOf(plan, family)
    .slice(from - 1)
    .map((effect) => drainOf(family, effect))
  const drained = drains.reduce((sum, one) => sum + one, 0)
  if (drained === 0) return 0
  const out = drainOf(family, effectOf(family, { kind: 'restart' }))
  const installs = untilInstalls(family, { steps: plan.steps.slice(from - 1), drains })
  return Math.floor(Math.max(drained + out, installs))
}
