/** What a version of a family decided: open slips of other versions, and what this one changes of each plan. */
import { createHash } from 'node:crypto'
import type { FamilyShown } from '@plain-slate/api'
import type { Family } from '@plain-slate/core'
import { digestOfJson, versionOf } from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import { plansDecided } from '../tables/job.ts'
import { loadJob } from './load.ts'
import { changesSince } from './standing.ts'

const digests = new WeakMap<Family, string>()
export function digestOf(family: Family): string {
  const known =
    digests.get(family) ??
    digestOfJson(family, (text) => createHash('sha256').update(text).digest('hex'))
  digests.set(family, known)
  return known
}

/** Open slips whose plan was decided by another version of a family, and what differs by this one. */
export async function decidedOtherwise(
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
