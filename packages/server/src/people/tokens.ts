/**
 * Acting at the shell as a person: by a PIN for a working day, or by a token that somebody made on House. A token is
 * 32 random bytes, shown once; here stands its SHA-256, so that who reads the database can act as nobody.
 */
import { createHash, randomBytes, randomUUID } from 'node:crypto'
import type { BodyOf, Contract, Face, Token } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import { ok, reaches, refuse } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Database } from '../tables/database.ts'
import { tell } from '../tables/news.ts'
import { listPeople } from '../tables/people.ts'
import { insertToken, listTokens, personOfToken, strikeToken } from '../tables/shell-tokens.ts'
import type { TokenRow } from '../tables/shell-tokens.ts'
import { faceOf } from './face.ts'
import { pinOf } from './sign-in.ts'

/** A PIN given at the shell stands as long as one given at a browser. */
const DAY_HOURS = 12
/** A token of House is made anew four times a year. */
const QUARTER_HOURS = 92 * 24
const BYTES = 32
const BEARER = 'Bearer '

const digestOf = (token: string): string => createHash('sha256').update(token).digest('hex')
const newToken = (): string => randomBytes(BYTES).toString('base64url')

/** Who bears the token of an authorization header; undefined: nobody, or somebody who has left. */
export async function bearerOf(
  db: Database,
  authorization: string | undefined,
): Promise<Face | undefined> {
  if (authorization?.startsWith(BEARER) !== true) return undefined
  const person = await personOfToken(db, digestOf(authorization.slice(BEARER.length)))
  return person?.active === true ? faceOf(person) : undefined
}

/** Signs a person in at the shell, as at a browser; answers what the shell shows from then on. */
export function signInAtShell(
  workshop: Workshop,
  { person, pin }: BodyOf<Contract['sessionShell']>,
): Promise<Result<{ readonly token: string; readonly person: Face }, Refusal>> {
  return workshop.db.transaction(async (trx) => {
    const tried = await pinOf(workshop, trx, person, pin)
    if (!tried.ok) return tried
    const token = newToken()
    const row = { id: randomUUID(), person, name: null, digest: digestOf(token) }
    await insertToken(trx, row, DAY_HOURS)
    await enter(workshop, trx, { by: person, act: 'session.begun', facts: { at: 'shell' } })
    return ok({ token, person: faceOf(tried.value) })
  })
}

/** Makes a token for whoever asks; their PIN is asked, so that a token makes no further ones. */
export function makeToken(
  workshop: Workshop,
  { name, pin }: BodyOf<Contract['tokenMake']>,
  actor: Face,
): Promise<Result<{ readonly token: string; readonly made: Token }, Refusal>> {
  return workshop.db.transaction(async (trx) => {
    const tried = await pinOf(workshop, trx, actor.id, pin)
    if (!tried.ok) return tried
    const token = newToken()
    const row = { id: randomUUID(), person: actor.id, name, digest: digestOf(token) }
    const made = await insertToken(trx, row, QUARTER_HOURS)
    await enter(workshop, trx, { by: actor.id, act: 'token.made', facts: { name } })
    await tell(trx, 'people', actor.id, 1)
    return ok({ token, made: shown(made, actor) })
  })
}

/** What somebody may see of the tokens: their own; a lead everybody's. */
export async function tokensFor(db: Database, actor: Face): Promise<Token[]> {
  const rows = await listTokens(db, seesAll(actor) ? undefined : actor.id)
  const faces = new Map((await listPeople(db)).map((person) => [person.id, faceOf(person)]))
  return rows.map((row) => shown(row, faces.get(row.person) ?? actor))
}

/** Ends a token at once. */
export function endToken(
  workshop: Workshop,
  id: string,
  actor: Face,
): Promise<Result<Token[], Refusal>> {
  return workshop.db.transaction(async (trx) => {
    const struck = await strikeToken(trx, id, seesAll(actor) ? undefined : actor.id)
    if (struck === undefined) return refuse({ code: 'token.unknown' as const })
    const facts = { name: struck.name ?? '', person: struck.person }
    await enter(workshop, trx, { by: actor.id, act: 'token.struck', facts })
    await tell(trx, 'people', struck.person, 1)
    return ok(await tokensFor(trx, actor))
  })
}

const seesAll = ({ role }: Face): boolean => reaches(role, 'lead')

const shown = ({ id, name, madeAt, endsAt }: TokenRow, person: Face): Token => ({
  id,
  person,
  name: name ?? '',
  madeAt: madeAt.toISOString(),
  endsAt: endsAt.toISOString(),
})
