/** Copies of the shop as the house names and sees them. They are made by whoever keeps the machine: the start command. */
import { isAbsolute } from 'node:path'
import type { CopiesShown, Face } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import { copyTrouble, msOf, ok, refuse } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import type { CopyRow } from '../tables/copies.ts'
import { nameCopyFolder, readCopies } from '../tables/copies.ts'
import { tell } from '../tables/news.ts'

export async function showCopies({ db }: Pick<Workshop, 'db'>): Promise<CopiesShown> {
  const { folder, namedAt, last, good } = await readCopies(db)
  const times = {
    named: namedAt === null ? 0 : msOf(namedAt),
    last: last === undefined ? undefined : { at: msOf(last.at), whole: last.why === null },
    good: good === undefined ? undefined : msOf(good.at),
  }
  return {
    folder,
    last: toldOf(last),
    good: toldOf(good),
    trouble: folder === null ? 'none' : copyTrouble(times, Date.now()),
  }
}

const toldOf = (row: CopyRow | undefined): CopiesShown['last'] =>
  row === undefined
    ? null
    : { ...row, why: row.why === null ? null : { ...row.why, facts: { ...row.why.facts } } }

/** Names the folder, or none. */
export async function nameCopies(
  workshop: Workshop,
  folder: string,
  actor: Face | undefined,
): Promise<Result<CopiesShown, Refusal>> {
  if (folder !== '' && !isAbsolute(folder))
    return refuse({ code: 'copies.folder', facts: { folder } })
  await workshop.db.transaction(async (trx) => {
    await nameCopyFolder(trx, folder === '' ? null : folder)
    await enter(workshop, trx, { by: actor?.id ?? null, act: 'copies.named', facts: { folder } })
    await tell(trx, 'shop', 'copies', 1)
  })
  return ok(await showCopies(workshop))
}
