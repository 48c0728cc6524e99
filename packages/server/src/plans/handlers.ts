/** Handlers of what fits a device at a port, and of the plan for it. */
import type { Contract } from '@plain-slate/api'
import { ok } from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import type { Handler } from '../edge/mount.ts'
import { fitAt, planAt } from './plan.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

export function planHandlers(workshop: Workshop) {
  const fit: Of<'fit'> = ({ params: { port }, body }) => fitAt(workshop, port, body)
  const plan: Of<'plan'> = async ({ body }) => {
    const planned = await planAt(workshop, body)
    return planned.ok ? ok(planned.value.shown) : planned
  }
  return { fit, plan }
}
