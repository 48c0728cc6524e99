/** Core's findings and steps as the contract takes them: the same codes and figures. */
import type { FindingShown, StepShown } from '@plain-slate/api'
import type { CutClass, Finding, PlacedStep } from '@plain-slate/core'

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

/** A step without the place of its first command, which only whoever drives needs. */
export function stepShown({
  firstCommand: _,
  facts,
  seconds,
  silent,
  ...step
}: PlacedStep<CutClass>): StepShown {
  return { ...step, facts: { ...facts }, seconds: { ...seconds }, silent: silent ?? null }
}
