/** The decision behind a plan that was taken: kept with all it was made with, and made again from that. */
import { createHash } from 'node:crypto'
import type { TakenShown } from '@plain-slate/api'
import type { Documents, Kept } from '@plain-slate/core'
import { decideAgain, documentsOf, keepDecision } from '@plain-slate/core'
import type { Planned } from '../plans/plan.ts'
import { stateAt } from '../plans/roads.ts'
import type { Database } from '../tables/database.ts'
import { readDocuments } from '../tables/documents.ts'
import type { JobAt } from './job-at.ts'

const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex')

export const decisionFor = (
  { readings, changed }: Pick<JobAt, 'readings' | 'changed'>,
  { plan, found }: Pick<Planned, 'plan' | 'found'>,
): Kept => keepDecision({ state: stateAt(found), readings, changed, plan }, sha256)

/** Made again; null: it was taken before decisions were kept, or a document of it is gone. */
export async function decidedAgain(
  db: Database,
  decision: string | null,
): Promise<TakenShown['decided']> {
  if (decision === null) return null
  const text = (await readDocuments(db, [decision])).get(decision)
  if (text === undefined) return null
  const named: Documents = await readDocuments(db, documentsOf(text))
  const again = decideAgain(decision, new Map([...named, [decision, text]]), sha256)
  return again.ok ? { ...again.value, decision } : null
}
