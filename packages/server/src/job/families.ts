/** Handlers of families: each as its file says it, with what this bench measured. */
import { createHash } from 'node:crypto'
import type { Contract, FamilyShown } from '@plain-slate/api'
import type { Family, Json } from '@plain-slate/core'
import { OWN_LEAST, digestOfJson, ok, refuse, versionOf } from '@plain-slate/core'
import type { Handler } from '../edge/mount.ts'
import type { Workshop } from '../base/workshop.ts'
import { modelsUnderWay } from '../tables/slips.ts'
import { figuresOf } from '../plans/plan.ts'
import { plansDecided } from '../tables/job.ts'
import { loadJob } from './load.ts'
import { changesSince } from './standing.ts'

type Of<Name extends keyof Contract> = Handler<Contract[Name]>

const digests = new WeakMap<Family, string>()
function digestOf(family: Family): string {
  const known =
    digests.get(family) ??
    digestOfJson(family, (text) => createHash('sha256').update(text).digest('hex'))
  digests.set(family, known)
  return known
}

/** Open slips whose plan was decided by another version of a family, and what differs by this one. */
async function decidedOtherwise(
  workshop: Workshop,
  family: Family,
): Promise<FamilyShown['decided']> {
  const decided = await plansDecided(workshop.db, family.id)
  const others = decided.filter(({ version }) => version !== versionOf(family))
  const shown: FamilyShown['decided'] = []
  for (const { slip: number, version } of others) {
    const job = await loadJob(workshop, number)
    if (!job.ok) continue
    const changes = changesSince(job.value)
    shown.push({
      number,
      version,
      changes: changes === undefined ? null : changes.map((one) => ({ ...one })),
    })
  }
  return shown
}

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
      own: { ...own },
      least: OWN_LEAST,
      decided: await decidedOtherwise(workshop, found),
    })
  }
  return { families, family }
}
