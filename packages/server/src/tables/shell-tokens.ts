/** Tokens for the shell: whose they are and until when. What one reads is never kept, only its digest. */
import type { Database, Transaction } from './database.ts'
import type { PersonRow } from './people.ts'

export type TokenRow = {
  readonly id: string
  readonly person: string
  readonly name: string | null
  readonly madeAt: Date
  readonly endsAt: Date
}
const COLUMNS = {
  id: 'id',
  person: 'person',
  name: 'name',
  madeAt: 'made_at',
  endsAt: 'ends_at',
} as const

/** Keeps a token that holds for so many hours of real time. */
export async function insertToken(
  trx: Transaction,
  token: Pick<TokenRow, 'id' | 'person' | 'name'> & { readonly digest: string },
  hours: number,
): Promise<TokenRow> {
  const [row] = (await trx('shell_tokens')
    .insert({
      ...token,
      made_at: trx.raw('now()'),
      ends_at: trx.raw("now() + ? * interval '1 hour'", [hours]),
    })
    .returning(Object.entries(COLUMNS).map(([as, column]) => `${column} as ${as}`))) as TokenRow[]
  if (row === undefined) throw new Error('a token that was kept is not there')
  return row
}

/** Whose a token is while it holds; somebody who has left too. */
export async function personOfToken(db: Database, digest: string): Promise<PersonRow | undefined> {
  return (await db('shell_tokens')
    .join('people', 'people.id', 'person')
    .where({ digest })
    .where('ends_at', '>', db.fn.now())
    .select({
      id: 'people.id',
      name: 'people.name',
      role: 'role',
      active: 'active',
      addedAt: 'added_at',
    })
    .first()) as PersonRow | undefined
}

/** Tokens that were made on House and hold, the newest first; of one person, or everybody's. */
export async function listTokens(db: Database, person: string | undefined): Promise<TokenRow[]> {
  const all = db('shell_tokens')
    .select(COLUMNS)
    .whereNotNull('name')
    .where('ends_at', '>', db.fn.now())
    .orderBy('made_at', 'desc')
  return (await (person === undefined ? all : all.where({ person }))) as TokenRow[]
}

/** Ends a token of this person, or of anybody; undefined: there is none. */
export async function strikeToken(
  trx: Transaction,
  id: string,
  person: string | undefined,
): Promise<TokenRow | undefined> {
  const it = trx('shell_tokens').where({ id }).whereNotNull('name')
  const [row] = (await (person === undefined ? it : it.where({ person }))
    .delete()
    .returning(Object.entries(COLUMNS).map(([as, column]) => `${column} as ${as}`))) as TokenRow[]
  return row
}

/** Ends every token of a person: they left, or their PIN was changed. */
export async function dropTokensOf(db: Database, person: string): Promise<void> {
  await db('shell_tokens').where({ person }).delete()
}

/** Removes tokens whose time is over; answers how many. */
export async function purgeTokens(db: Database): Promise<number> {
  return db('shell_tokens').where('ends_at', '<', db.fn.now()).delete()
}
