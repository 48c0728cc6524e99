/** Core's findings and steps as the contract takes them: the same codes and figures. */
import type { FindingShown, RemedyShown, StepShown } from '@plain-slate/api'
import type { CutClass, Finding, PlacedStep, Remedy } from '@plain-slate/core'
import { REMEDIES } from '@plain-slate/core'

export const findingOf = ({
  rule,
  verdict,
  code,
  facts,
  marks,
  remedy,
  overruled,
}: Finding): FindingShown => ({
  rule,
  verdict,
  code,
  facts: { ...facts },
  marks: marks.map((mark) => ({ ...mark })),
  remedy: remedy === undefined ? null : remedyOf(remedy),
  overruled,
})

/** A plan of before kept a word in place of an act. */
function remedyOf(remedy: Remedy | string): RemedyShown {
  if (typeof remedy === 'string')
    return { kind: REMEDIES.find((kind) => kind === remedy) ?? 'along' }
  return 'facts' in remedy ? { ...remedy, facts: [...remedy.facts] } : { ...remedy }
}

/** A step without the place of its first command, which only whoever drives needs. */
export function stepShown({
  firstCommand: _,
  seconds,
  silent,
  ...step
}: PlacedStep<CutClass>): StepShown {
  return { ...step, seconds: { ...seconds }, silent: silent ?? null }
}
