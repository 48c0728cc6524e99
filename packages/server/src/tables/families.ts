/** Families that were taken in, version by version; rows are only put. */
import type { Database, Transaction } from './database.ts'

export type FamilyFile = { readonly id: string; readonly version: number; readonly body: string }

/** False: this version, or a newer one, is here already. The table is locked, so that two who take one in take turns. */
export async function insertFamily(
  trx: Transaction,
  file: FamilyFile & { readonly by: string | null; readonly at: Date },
): Promise<boolean> {
  await trx.raw('lock table families in exclusive mode')
  const newest = (await trx('families')
    .where({ id: file.id })
    .max('version as version')
    .first()) as { version: number | null } | undefined
  if ((newest?.version ?? 0) >= file.version) return false
  await trx('families').insert(file)
  return true
}

/** Every version, the oldest first. */
export async function listFamilies(db: Database): Promise<readonly FamilyFile[]> {
  return (await db('families')
    .orderBy(['id', 'version'])
    .select('id', 'version', 'body')) as FamilyFile[]
}
