/** The ways of a plan that hands go. Reads steps in order; gives from where to where, by the number of each step. */
import type { Way } from '../family/profile.ts'
import type { Mode } from '../terms/device.ts'
import type { Step } from './step.ts'

export type HandWay = { readonly step: number; readonly from: Mode | undefined; readonly to: Mode }

/** `begin`: the mode in which it begins, where that is known; a way may begin in several. */
export function handWays(steps: readonly Step[], begin?: Mode): readonly HandWay[] {
  let here = begin
  return steps.flatMap((step): readonly HandWay[] => {
    const way = wayIn(step)
    if (way === undefined) {
      here = step.kind === 'restart' || step.kind === 'first-start' ? step.to : here
      return []
    }
    const [only, ...others] = way.from === 'any' ? [] : way.from
    const from = here ?? (others.length === 0 ? only : undefined)
    here = way.to
    return way.hands ? [{ step: step.number, from, to: way.to }] : []
  })
}

/** The way that a step goes: into a mode, or, of a first start, where hands start it. */
function wayIn(step: Step): Way | undefined {
  if (step.kind === 'enter') return step.way
  return step.kind === 'first-start' ? step.by : undefined
}

/** Modes in which a plan meets its device, each once; `begin`: the one in which it begins, where that is known. */
export function modesMet(steps: readonly Step[], begin?: Mode): readonly Mode[] {
  const met = steps.flatMap((step): readonly Mode[] => {
    if (step.kind === 'enter') return [step.way.to]
    if (step.kind === 'restart' || step.kind === 'first-start') return [step.to]
    return 'mode' in step ? [step.mode] : []
  })
  return [...new Set([...(begin === undefined ? [] : [begin]), ...met])]
}
