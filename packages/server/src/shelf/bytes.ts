/** Bytes of the vault and the rows that own them: none is dropped while a row needs it. */
import type { Workshop } from '../base/workshop.ts'
import { lockBytes, ownersOf } from '../tables/shelf.ts'

/** Takes bytes out of the vault that no row owns any more. */
export async function dropUnowned(workshop: Workshop, sha256: string): Promise<void> {
  await workshop.db.transaction(async (trx) => {
    await lockBytes(trx, sha256)
    if ((await ownersOf(trx, sha256)) === 0) await workshop.vault.drop(sha256)
  })
}
