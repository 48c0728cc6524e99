/** Telling a twin, and running whole plans on it, for tests of what the families do. */
import { fold } from '../plan/folds.ts'
import type { Plan } from '../plan/plan.ts'
import { makePlan } from '../route/make-plan.ts'
import type { Case } from '../match/rule.ts'
import { keepsPromise, rehearse } from '../rehearsal/rehearse.ts'
import type { TwinInput } from '../twin/stepped.ts'
import { factsOf } from '../twin/told.ts'
import { step } from '../twin/twin.ts'
import type { Bench } from './families.ts'

export const tell = (
  { nature: of, device }: Pick<Bench, 'nature' | 'device'>,
  ...inputs: TwinInput[]
) =>
  inputs.reduce((so, input) => step(of, so.device, input, so.device.at), {
    device,
    output: { kind: 'silent' } as ReturnType<typeof step>['output'],
    doneAt: 0,
  })
export const refused = (bench: Bench, ...inputs: TwinInput[]) => {
  const { output } = tell(bench, ...inputs)
  return output.kind === 'refused' ? output.code : output.kind
}

/** A plan run to its end, with what it promised. */
export function ended(bench: Bench, at: Case, mode = bench.device.mode) {
  const made = makePlan({ at, mode, permission: bench.device.permission })
  if (!made.ok) throw new Error(JSON.stringify(made.refusal))
  const { end } = rehearse(bench.nature, bench.device, made.value)
  const says = factsOf(bench.nature, { ...end.device, mode: end.device.mode })
  const { fates } = fold(made.value, at)
  const reaches = keepsPromise(made.value, fates, end.device, says)
  return { plan: made.value, end, device: end.device, fates, reaches }
}
export const kinds = (plan: Plan) => plan.steps.map(({ kind }) => kind)
