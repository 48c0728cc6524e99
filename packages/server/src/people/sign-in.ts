/** Signing in and off; every try that counts is an entry of the book. */
import type { Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Face } from '@plain-slate/api'
import { faceOf } from './face.ts'
import type { Transaction } from '../tables/database.ts'
import type { PersonRow } from '../tables/people.ts'
import { tryPin } from './pin.ts'

/**
 * Signs a person in. When somebody else holds the bench, their session ends with "handed to". The
 * refusal says nothing about whether the person exists.
 */
export async function signIn(
  workshop: Workshop,
  personId: string,
  pin: string,
  before: Face | undefined,
): Promise<Result<Face, Refusal>> {
  return workshop.db.transaction(async (trx) => {
    const tried = await pinOf(workshop, trx, personId, pin)
    if (!tried.ok) return tried
    const face = faceOf(tried.value)
    if (before !== undefined && before.id !== face.id) {
      const facts = { handedTo: face.id }
      await enter(workshop, trx, { by: before.id, act: 'session.ended', facts })
    }
    await enter(workshop, trx, { by: face.id, act: 'session.begun', facts: {} })
    return ok(face)
  })
}

/** The person whose PIN this is, wherever it is given; what was wrong stands in the book. */
export async function pinOf(
  workshop: Workshop,
  trx: Transaction,
  personId: string,
  pin: string,
): Promise<Result<PersonRow, Refusal>> {
  const tried = await tryPin(trx, personId, pin, Date.now())
  if (tried.kind === 'right') return ok(tried.person)
  if (tried.kind === 'wrong') {
    const facts = { person: tried.person?.id ?? personId, why: 'pin' }
    await enter(workshop, trx, { by: null, act: 'session.refused', facts })
    return refuse({ code: 'session.pin' as const })
  }
  const { waitSeconds } = tried
  return refuse({
    code: 'session.slow' as const,
    facts: { seconds: waitSeconds, name: tried.person.name },
    more: { waitSeconds },
  })
}

/** Enters that a person signed off. */
export async function signOff(workshop: Workshop, actor: Face): Promise<void> {
  await workshop.db.transaction((trx) =>
    enter(workshop, trx, { by: actor.id, act: 'session.ended', facts: {} }),
  )
}
