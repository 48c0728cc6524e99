/** Plans of packages that a device installs by itself, and what the twin says to inputs one after the other. */
import type { Manifest } from '../firmware/manifest.ts'
import type { PlanWay } from '../plan/install.ts'
import type { Plan } from '../plan/plan.ts'
import { makePlan } from '../route/make-plan.ts'
import { rehearse } from '../rehearsal/rehearse.ts'
import type { DeviceModel } from '../twin/state.ts'
import type { TwinInput } from '../twin/stepped.ts'
import { step } from '../twin/twin.ts'
import type { Bench } from './families.ts'
import { caseOf } from './families.ts'

export const planned = (bench: Bench, aim: Manifest, way?: PlanWay, keepData = true): Plan => {
  const { mode, permission } = bench.device
  const at = caseOf(bench, aim, { keepData, intent: keepData ? 'update' : 'downgrade' })
  const made = makePlan({ at, mode, permission, ...(way === undefined ? {} : { way }) })
  if (!made.ok) throw new Error(JSON.stringify(made.refusal))
  return made.value
}
export const run = ({ nature, device }: Bench, plan: Plan) => rehearse(nature, device, plan).end
export const say = ({ nature }: Bench, device: DeviceModel, ...inputs: readonly TwinInput[]) =>
  inputs.reduce(
    (so, input) => step(nature, so.device, input, so.doneAt),
    step(nature, device, { kind: 'facts' }, device.at),
  )
