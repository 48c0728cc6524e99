/**
 * Acts for which one person is not enough: whoever does it, and where the act asks for one the second person beside
 * them with their own PIN. What was refused, and every wrong PIN, stands in the book.
 */
import type { Face } from '@plain-slate/api'
import type { Act, Result } from '@plain-slate/core'
import { authorise, ok, refuse } from '@plain-slate/core'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import { enter } from '../book/append.ts'
import type { Transaction } from '../tables/database.ts'
import { tryPin } from './pin.ts'

export type Second = { readonly person: string; readonly pin: string }
type Beside = { readonly id: string; readonly role: Face['role'] } | undefined
type Asked = {
  readonly act: Act
  readonly actor: Face
  readonly slip: string
  readonly second: Second | undefined
}

/** The second person, where one stands by and the act may be done; else why it may not. */
export async function allowed(
  workshop: Workshop,
  trx: Transaction,
  { act, actor, slip, second }: Asked,
): Promise<Result<Beside, Refusal>> {
  const beside = await secondPerson(trx, second)
  if (!beside.ok) {
    if (beside.refusal.code === 'act.second-pin')
      await enter(workshop, trx, wrongSecond(slip, actor, second))
    return beside
  }
  const decision = authorise(actor, act, beside.value)
  if (decision.kind === 'allowed') return ok(beside.value)
  if (decision.kind === 'needs-second') return needsSecond(decision.role)
  await enter(workshop, trx, {
    by: actor.id,
    act: 'act.refused',
    slip,
    facts: { act, why: decision.why, second: beside.value?.id ?? '' },
  })
  if (decision.why === 'second-is-same') return refuse({ code: 'act.second-is-same' as const })
  return second === undefined
    ? refuse({ code: 'act.refused', facts: { role: actor.role, needs: decision.needs } })
    : needsSecond(decision.needs)
}

const needsSecond = (role: Face['role']) =>
  refuse({ code: 'act.needs-second' as const, facts: { role }, more: { role } })

/** A second person's PIN that was wrong stands in the book as any other that was. */
const wrongSecond = (slip: string, actor: Face, second: Second | undefined) =>
  ({
    by: actor.id,
    act: 'session.refused',
    slip,
    facts: { person: second?.person ?? '', why: 'second-pin' },
  }) as const

async function secondPerson(
  trx: Transaction,
  second: Second | undefined,
): Promise<Result<Beside, Refusal>> {
  if (second === undefined) return ok(undefined)
  const tried = await tryPin(trx, second.person, second.pin, Date.now())
  if (tried.kind === 'right') return ok(tried.person)
  if (tried.kind === 'wrong') return refuse({ code: 'act.second-pin' })
  const { waitSeconds, person } = tried
  const facts = { seconds: waitSeconds, name: person.name }
  return refuse({ code: 'session.slow', facts, more: { waitSeconds } })
}
