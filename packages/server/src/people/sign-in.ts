/** Signing in and off; every try that counts is an entry of the book. */
import type { Result } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Face } from '@plain-slate/api'
import { faceOf } from './face.ts'
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
    const tried = await tryPin(trx, personId, pin, Date.now())
    if (tried.kind === 'wrong') {
      const facts = { person: tried.person?.id ?? personId, why: 'pin' }
      await enter(workshop, trx, { by: null, act: 'session.refused', facts })
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
      await enter(workshop, trx, { by: before.id, act: 'session.ended', facts })
    }
    await enter(workshop, trx, { by: face.id, act: 'session.begun', facts: {} })
    return ok(face)
  })
}

/** Enters that a person signed off. */
export async function signOff(workshop: Workshop, actor: Face): Promise<void> {
  await workshop.db.transaction((trx) =>
    enter(workshop, trx, { by: actor.id, act: 'session.ended', facts: {} }),
  )
}
