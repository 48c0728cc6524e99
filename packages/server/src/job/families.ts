/** Handlers of families: each as its file says it, with what this bench measured. */
import type { Contract } from '@plain-slate/api'
import type { Json } from '@plain-slate/core'
import { OWN_LEAST, ok, refuse } from '@plain-slate/core'
import type { Handler } from '../edge/mount.ts'
import type { Workshop } from '../base/workshop.ts'
import { modelsUnderWay } from '../tables/slips.ts'
import { figuresOf } from '../plans/plan.ts'
import { decidedOtherwise, digestOf } from './family-decided.ts'
import { takeFamily } from './family-take.ts'
import { trialHere } from './family-trial.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

export function familyHandlers(workshop: Workshop) {
  const families: Of<'families'> = async () => {
    const models = await modelsUnderWay(workshop.db)
    return ok(
      workshop.families.map((one) => ({
        id: one.id,
        version: one.version,
        maker: one.maker,
        models: one.models.map(({ code }) => code),
        modes: one.modes.length,
        digest: digestOf(one),
        slips: models.filter((model) => one.models.some(({ code }) => code === model)).length,
      })),
    )
  }
  const family: Of<'family'> = async ({ params: { id } }) => {
    const found = workshop.families.find((one) => one.id === id)
    if (found === undefined) return refuse({ code: 'family.unknown', facts: { id } })
    const own = await figuresOf(workshop.db, id)
    return ok({
      family: found as unknown as Json,
      digest: digestOf(found),
      trial: trialHere(found),
      own: { ...own },
      least: OWN_LEAST,
      decided: await decidedOtherwise(workshop, found),
    })
  }
  const familyTake: Of<'familyTake'> = ({ body, actor }) => takeFamily(workshop, body, actor)
  return { families, family, familyTake }
}
