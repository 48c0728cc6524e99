/** Core's findings, steps and plans as the contract shows them: codes and figures, no sentences. */
import type { FindingShown, StepShown } from '@plain-slate/api'
import type { CutClass, Effect, Finding, OwnFigures, Plan, Step } from '@plain-slate/core'
import { commandsOf, effectsOf, paceOf, silentLimit } from '@plain-slate/core'
import type { Family } from '@plain-slate/core'

export const findingOf = ({
  rule,
  verdict,
  code,
  facts,
  marks,
  remedy,
}: Finding): FindingShown => ({
  rule,
  verdict,
  code,
  facts: { ...facts },
  marks: marks.map((mark) => ({ ...mark })),
  remedy: remedy ?? null,
})

/** A step with the place of its first command. */
export type PlacedStep = StepShown & { readonly firstCommand: number }

/** A plan's steps with their figures, and the place of each one's first command. */
export function stepsOf(
  plan: Plan,
  family: Family,
  worst: ReadonlyMap<number, CutClass>,
  own: OwnFigures = {},
): readonly PlacedStep[] {
  const effects = effectsOf(plan, family)
  let firstCommand = 0
  return plan.steps.map((step, index) => {
    const effect = effects[index] as Effect
    const { low, high, source, n } = paceOf(family, effect, own)
    const shown = {
      number: step.number,
      kind: step.kind,
      facts: factsOf(step),
      seconds: { low, high },
      hands: effect.hands,
      worst: worst.get(step.number) ?? 'unaffected',
      source,
      n,
      silent: silentLimit(family, effect, own) ?? null,
      firstCommand,
    }
    firstCommand += commandsOf(step).length
    return shown
  })
}

/** A step without what only the server needs. */
export function withoutPlace(step: PlacedStep): StepShown {
  const { firstCommand: _, ...shown } = step
  return shown
}

/** What a step's sentence needs. Bytes are model bytes. */
function factsOf(step: Step): Record<string, string | number> {
  switch (step.kind) {
    case 'ready':
      return { what: step.what }
    case 'enter':
      return { say: step.way.say, to: step.way.to }
    case 'write': {
      const { image, piece, pieces, size, scale } = step
      return { partition: image.partition, piece, pieces, mib: mib(size * scale) }
    }
    case 'read-back':
      return { partition: step.image.partition, mib: mib(step.image.size * step.scale) }
    case 'first-start':
      return { wiped: String(step.wiped) }
    case 'prove': {
      const { build, loaderVersion, floor } = step.expect
      return { build, loader: loaderVersion, floor }
    }
    case 'meet':
    case 'restart':
      return {}
  }
}

const mib = (bytes: number): number => Math.round(bytes / 1024 ** 2)
