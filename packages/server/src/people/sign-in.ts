/** Signing in and off; every try that counts is an entry of the book. */
import type { Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { House } from '../house.ts'
import type { Refusal } from '../refusal.ts'
import type { Face } from './face.ts'
import { faceOf } from './face.ts'
import { tryPin } from './pin.ts'

/**
 * Signs a person in. When somebody else holds the bench, their session ends with "handed to". The
 * refusal says nothing about whether the person exists.
 */
export async function signIn(
  house: House,
  personId: string,
  pin: string,
  before: Face | undefined,
): Promise<Result<Face, Refusal>> {
  return house.db.transaction(async (trx) => {
    const tried = await tryPin(trx, personId, pin, Date.now())
    if (tried.kind === 'wrong') {
      const facts = { person: tried.person?.id ?? personId, why: 'pin' }
      await enter(house, trx, { by: null, act: 'session.refused', facts })
      return refuse({ code: 'session.pin' as const })
    }
    if (tried.kind === 'slow') {
      const { waitSeconds } = tried
      return refuse({
        code: 'session.slow' as const,
        facts: { seconds: waitSeconds, name: tried.person.name },
        more: { waitSeconds },
      })
    }
    const face = faceOf(tried.person)
    if (before !== undefined && before.id !== face.id) {
      const facts = { handedTo: face.id }
      await enter(house, trx, { by: before.id, act: 'session.ended', facts })
    }
    await enter(house, trx, { by: face.id, act: 'session.begun', facts: {} })
    return ok(face)
  })
}

/** Enters that a person signed off. */
export async function signOff(house: House, actor: Face): Promise<void> {
  await house.db.transaction((trx) =>
    enter(house, trx, { by: actor.id, act: 'session.ended', facts: {} }),
  )
}
